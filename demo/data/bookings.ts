import type { Booking } from "@/core/schedule/booking";

/** Vehicles the made-up shop expects, by days from now. */
export const BOOKINGS: { inDays: number; booking: Booking }[] = [
  {
    inDays: 0,
    booking: {
      customer: "Wenna Pask",
      plate: "SK 204 M",
      vehicleId: "norvane-lisse",
      happenings: [{ event: "glass-out", place: "windshield" }],
      place: "shop",
      arriveMin: 8 * 60 + 30,
      promiseMin: 14 * 60,
      said: {},
    },
  },
  {
    inDays: 0,
    booking: {
      customer: "Harbour Taxis",
      plate: "SK 771 T",
      vehicleId: "tesmar-harrow",
      happenings: [{ event: "camera-touched", place: "windshield" }],
      place: "shop",
      arriveMin: 9 * 60,
      promiseMin: 15 * 60 + 30,
      said: { load: "roof sign comes off at home" },
    },
  },
  {
    inDays: 0,
    booking: {
      customer: "Jory Tamblin",
      plate: "SK 518 B",
      vehicleId: "norvane-lisse",
      happenings: [{ event: "bracket-touched", place: "windshield" }],
      place: "shop",
      arriveMin: 10 * 60,
      promiseMin: 16 * 60 + 30,
      said: {},
    },
  },
  {
    inDays: 1,
    booking: {
      customer: "Isla Renwick",
      plate: "SK 093 R",
      vehicleId: "ardvale-sandling",
      happenings: [{ event: "glass-out", place: "windshield" }],
      place: "shop",
      arriveMin: 8 * 60 + 30,
      promiseMin: null,
      said: {},
    },
  },
  {
    inDays: 1,
    booking: {
      customer: "Northhead Dairy",
      plate: "SK 660 D",
      vehicleId: "tesmar-harrow",
      happenings: [{ event: "glass-out", place: "windshield" }],
      place: "van",
      arriveMin: 10 * 60,
      promiseMin: 15 * 60,
      said: {},
    },
  },
  {
    inDays: 3,
    booking: {
      customer: "Merrin Holt",
      plate: "SK 145 H",
      vehicleId: "norvane-lisse",
      happenings: [{ event: "bumper-touched", place: "front" }],
      place: "shop",
      arriveMin: 9 * 60 + 30,
      promiseMin: null,
      said: {},
    },
  },
];
