import { describe, expect, it } from "vitest";
import { BAYS } from "@/demo/data/bays";
import { VEHICLES } from "@/demo/data/vehicles";
import { floorOf } from "@/core/ready";
import { rectangle } from "@/tests/any-bay";
import { baySchema } from "./bay";
import { floorGrid, floorSurface, floorThere } from "./level";
import { floorAtPose, isRoomy, roomIn, roomWithout, type RoomAsk } from "./room";
import { noseOf } from "./zones";

const [CAR] = VEHICLES as [(typeof VEHICLES)[number]];
const FORWARD: RoomAsk = {
  name: "forward camera",
  system: "forward-camera",
  room: { ahead: 3, behind: 0, sides: 0.5 },
  floor: null,
};
const front = CAR.wheelbaseMm + CAR.frontOverhangMm;

/** A bay as wide as the job and hardly longer: what it looks at is one of its two ends. */
const tunnel = (more: object) => {
  const long = CAR.lengthMm + 3600;
  return baySchema.parse({
    id: "t",
    name: "Tunnel",
    outline: [...rectangle(0, 0, long, 3600)],
    doors: [
      [
        [0, 300],
        [0, 3300],
      ],
    ],
    ...more,
  });
};

describe("room in a bay", () => {
  it("is said to be there, and at how many places, just where the roomiest place is found", () => {
    const asks: RoomAsk[] = [
      FORWARD,
      {
        ...FORWARD,
        name: "surround",
        system: "surround-cameras",
        room: { ahead: 1.2, behind: 1.2, sides: 1.4 },
      },
    ];
    const long = { ahead: 9, behind: 0, sides: 0.5 };
    const counts = new Set<string>();
    for (const vehicle of VEHICLES.slice(0, 3))
      for (const bay of BAYS)
        for (const some of [[asks[0]!], asks, [{ ...asks[0]!, room: long }]]) {
          const [whether, where] = [true, false].map((w) => roomIn(bay, vehicle, some, w));
          const said = (of: typeof where): string => `${of!.length} ${of!.every(isRoomy)}`;
          expect(said(whether)).toBe(said(where));
          counts.add(said(where));
        }
    expect(counts.size).toBeGreaterThanOrEqual(2);
  });
  it("is turned away from a window, and where the other end has one too that one is covered", () => {
    const long = CAR.lengthMm + 3600;
    const window = (x: number, covers: boolean) => ({
      name: x === 0 ? "door window" : "back window",
      kind: "window",
      // Drawn so that its left is the room.
      from: x === 0 ? [0, 3000] : [x, 600],
      to: x === 0 ? [0, 600] : [x, 3000],
      covers,
    });
    const [back] = roomIn(tunnel({ lights: [window(long, false)] }), CAR, [FORWARD]);
    expect(isRoomy(back!)).toBe(true);
    expect(noseOf(tunnel({}), back!.fit.pose)).toBe("out");
    expect(back!.cover).toEqual([]);
    const [door] = roomIn(tunnel({ lights: [window(0, false)] }), CAR, [FORWARD]);
    expect(noseOf(tunnel({}), door!.fit.pose)).toBe("in");
    const both = { lights: [window(0, true), window(long, false)] };
    const [covered] = roomIn(tunnel(both), CAR, [FORWARD]);
    expect(isRoomy(covered!)).toBe(true);
    expect(covered!.cover).toEqual(["door window"]);
    const [nowhere] = roomIn(tunnel({ lights: [window(0, false), window(long, false)] }), CAR, [
      FORWARD,
    ]);
    expect(isRoomy(nowhere!)).toBe(false);
    expect(nowhere!.fit.marginMm).toBeGreaterThan(0);
    expect(nowhere!.seen.join()).toMatch(/window$/);
  });
  it("is turned away from a wall that looks like a target", () => {
    const long = CAR.lengthMm + 3600;
    const bay = tunnel({ likenesses: [{ name: "chequers", from: [long, 600], to: [long, 3000] }] });
    const [place] = roomIn(bay, CAR, [FORWARD]);
    expect(noseOf(bay, place!.fit.pose)).toBe("out");
  });
  it("says without which single thing it would fit, and says nothing where it fits or never would", () => {
    const long = CAR.lengthMm + 3600;
    const box = (name: string, x: number) => ({
      name,
      outline: [
        [x, 0],
        [x + 400, 0],
        [x + 400, 1700],
        [x, 1700],
      ],
      toMm: 1800,
    });
    // A rack across the middle, and a shelf that is no higher than a foot.
    const rack = box("rack", long / 2);
    const shelf = {
      ...box("shelf", 100),
      outline: [
        [100, 0],
        [200, 0],
        [200, 100],
        [100, 100],
      ],
    };
    const hindered = tunnel({ obstacles: [rack, shelf] });
    expect(roomIn(hindered, CAR, [FORWARD]).every(isRoomy)).toBe(false);
    expect(roomWithout(hindered, CAR, [FORWARD])).toEqual(["rack"]);
    expect(roomWithout(tunnel({ obstacles: [shelf] }), CAR, [FORWARD])).toEqual([]);
    // Two of them: neither alone would do.
    const twice = tunnel({ obstacles: [rack, box("press", long / 2 + 900)] });
    expect(roomWithout(twice, CAR, [FORWARD])).toEqual([]);
    const huge = { ...FORWARD, room: { ahead: 30, behind: 0, sides: 0 } };
    expect(roomWithout(hindered, CAR, [huge])).toEqual([]);
  });
  it("gives Ready the floor of where it stands, as the survey has it", () => {
    const bay = BAYS.find((b) => b.floor)!;
    const pose = { xMm: 3000, yMm: 3300, headingRad: 0.1 };
    const standX = front + 1500;
    const floor = floorAtPose(bay, CAR, pose, standX)!;
    const values = Object.fromEntries([
      ...["FL", "FR", "RL", "RR"].map((c, i) => [c, floor.tyres[i]!.ruleMm]),
      ["stand", floor.stand[0]!.ruleMm],
      ["stand-2", floor.stand[1]!.ruleMm],
    ]) as Record<string, number>;
    const ready = floorOf(values, CAR, { xMm: standX, yMm: 0, headingRad: Math.PI })!;
    const there = floorThere(floorGrid(bay, floorSurface(bay)!), CAR, [], pose);
    expect((ready.slopeAhead.value * 180) / Math.PI).toBeCloseTo(there.aheadDeg, 2);
    expect((ready.slopeLeft.value * 180) / Math.PI).toBeCloseTo(there.leftDeg, 2);
    expect(ready.twist!.value).toBeCloseTo(there.twistMm, 1);
    // It falls toward the door by about 3 mm to the metre, hollow left aside.
    expect(there.aheadDeg).toBeGreaterThan(0.05);
    expect(
      floorAtPose(
        BAYS.find((b) => !b.floor)!,
        CAR,
        pose,
        standX,
      ),
    ).toBeNull();
  });
});
