import { beforeAll, describe, expect, it } from "vitest";
import { vehicleSchema } from "@/core/vehicle";
import { technician } from "@/demo/technician";
import { INTAKE } from "@/tests/fixtures";
import { INES, openTestShop } from "@/tests/shop-database";
import { learnedOf, withLearned } from "./learned";
import { vehicleVersions } from "./store";

beforeAll(() => openTestShop());

/** A car of the model that is set out, by the advice, in a simulated bay of its own. */
async function car(seed: string) {
  const t = technician(INES, new Date(Date.now() - 3600_000).toISOString());
  t.open(INTAKE, seed);
  await t.check("ready");
  t.follow(({ next }) => next.kind === "settle");
  return t;
}

describe("what the shop's cars say of the book", () => {
  it("counts cars that stand proved by this very version, and knows more with each", async () => {
    const [book] = vehicleVersions(INTAKE.vehicleId);
    const wheelbase = () => learnedOf(book!).dimensions.find((d) => d.path === "wheelbaseMm")!;
    expect(learnedOf(book!)).toMatchObject({ cars: 0 });
    const before = wheelbase().sigmaMm;
    const first = await car("learn-0");
    expect(learnedOf(book!).cars).toBe(0);
    first.settle();
    expect(learnedOf(book!).cars).toBe(1);
    const one = wheelbase().sigmaMm;
    (await car("learn-1")).settle();
    expect(learnedOf(book!).cars).toBe(2);
    expect(one).toBeLessThan(before);
    expect(wheelbase().sigmaMm).toBeLessThan(one);
    expect(learnedOf({ ...book!, version: 9 }).cars).toBe(0);
    first.write({ kind: "touch", touch: "knocked" });
    expect(learnedOf(book!).cars).toBe(1);
  });

  it("drafts a version with what is proposed, and the source says from what", () => {
    const [book] = vehicleVersions(INTAKE.vehicleId);
    const { dimensions } = learnedOf(book!);
    expect(withLearned(book!, { cars: 12, dimensions }, "2026-11-27")).toBeNull();
    const off = dimensions.map((d) =>
      d.path === "wheelbaseMm" || d.path === "frontBadge.yMm"
        ? { ...d, proposedMm: d.bookMm + 3 }
        : d,
    );
    const draft = vehicleSchema.parse(
      withLearned(book!, { cars: 12, dimensions: off }, "2026-11-27"),
    );
    expect(draft).toMatchObject({
      wheelbaseMm: book!.wheelbaseMm + 3,
      frontBadge: { ...book!.frontBadge, yMm: book!.frontBadge.yMm + 3 },
      trackRearMm: book!.trackRearMm,
    });
    expect(draft.source).toBe(
      `${book!.source}. From 12 cars set out in this shop, 2026-11-27: wheelbase; front badge, to the left`,
    );
  });
});
