import { beforeAll, describe, expect, it } from "vitest";
import { madeUpVin } from "@/demo/data/vehicles";
import { technician } from "@/demo/technician";
import { INTAKE } from "@/tests/fixtures";
import { INES, openTestShop } from "@/tests/shop-database";
import { db } from "../db/client";
import { shareLinks } from "../db/schema";
import { writeLines } from "../jobs/append";
import { eventsAfter } from "../jobs/log";
import { eraseCustomer } from "../log/erase";
import { linksOf, makeLink, openLink, revokeLink, ShareRefusal } from "./links";

beforeAll(() => openTestShop());

const HOUSE = "http://shop.example";
const token = (url: string): string => url.split("/share/")[1]!;

async function handedOver(): Promise<string> {
  const t = technician(INES, new Date(Date.now() - 3_600_000).toISOString());
  t.open({ ...INTAKE, vin: madeUpVin("0NVLS2DA7R100801") }, "shared");
  await t.check("ready");
  return t.jobId;
}

describe("a link to a paper", () => {
  it("shows that one paper until it ends or is taken back, and keeps no address of itself", async () => {
    const jobId = await handedOver();
    const asked = { reader: "customer", days: 3, to: null } as const;
    await expect(makeLink(jobId, asked, INES, HOUSE, 0)).rejects.toThrow(/Hand it over first/);
    const done = writeLines(
      jobId,
      eventsAfter(jobId).length,
      [{ id: "over", takenAt: new Date().toISOString(), body: { kind: "hand-over" } }],
      INES,
    );
    expect(done.ok).toBe(true);
    const { url, links } = await makeLink(jobId, asked, INES, HOUSE, 0);
    expect(url.startsWith(`${HOUSE}/share/`)).toBe(true);
    expect(links).toMatchObject([{ reader: "customer", by: INES.name, seenAt: null }]);
    expect(JSON.stringify(db().select().from(shareLinks).all())).not.toContain(token(url));
    expect(openLink(token(url))).toMatchObject({ jobId, reader: "customer" });
    expect(linksOf(jobId)[0]!.seenAt).not.toBeNull();
    expect(openLink("nobody-made-this")).toBeNull();
    const fourDays = new Date(Date.now() + 4 * 86_400_000);
    expect(openLink(token(url), fourDays)).toBeNull();
    revokeLink(jobId, links[0]!.id, INES);
    expect(openLink(token(url))).toBeNull();
    expect(() => revokeLink(jobId, links[0]!.id, INES)).toThrow(ShareRefusal);

    // What the post refuses is no link.
    const before = linksOf(jobId).length;
    await expect(
      makeLink(jobId, { ...asked, to: "somebody@house.invalid" }, INES, HOUSE, 0),
    ).rejects.toThrow(/house.invalid takes no letters/);
    expect(linksOf(jobId)).toHaveLength(before);
    for (let n = 0; n < 5; n++)
      await makeLink(jobId, { ...asked, to: "owner@house.example" }, INES, HOUSE, 0).catch(
        () => {},
      );
    expect(linksOf(jobId).filter((l) => l.sentTo === "owner@house.example").length).toBeGreaterThan(
      2,
    );
    // Erased on request: no address stays, and nothing is shown any more.
    eraseCustomer(jobId, "Owner asked by letter", { ...INES, role: "lead" });
    expect(linksOf(jobId)).toEqual([]);
  }, 30_000);
});
