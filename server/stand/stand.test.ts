import { beforeAll, describe, expect, it } from "vitest";
import { INES, openTestShop, OSKAR } from "@/tests/shop-database";
import { INTAKE } from "@/tests/fixtures";
import { db } from "../db/client";
import { standCodes } from "../db/schema";
import { writeLines } from "../jobs/append";
import { eventsAfter } from "../jobs/log";
import { takeIn } from "../jobs/take-in";
import { makeStandCode, takeStandCode } from "./codes";
import { onGrowth } from "./live";

let job = "";
beforeAll(() => {
  openTestShop();
  job = takeIn(INTAKE, INES);
});

describe("a code for a phone", () => {
  const at = (minutes: number): Date => new Date(Date.UTC(2026, 10, 3, 9, minutes));
  it("opens the job once, in the name of whoever made it", () => {
    const { code } = makeStandCode(job, OSKAR, at(0));
    expect(takeStandCode(code, at(4))).toEqual({ jobId: job, personId: "oskar" });
    expect(() => takeStandCode(code, at(4))).toThrow(/used or is too old/);
  });
  it("is good for five minutes, and a guess for none", () => {
    const { code, expiresAt } = makeStandCode(job, INES, at(0));
    expect(expiresAt).toBe(at(5).toISOString());
    expect(() => takeStandCode(code, at(6))).toThrow(/too old/);
    expect(() => takeStandCode("guess", at(0))).toThrow(/too old/);
    expect(() => makeStandCode("no-such-job", INES)).toThrow(/no such job/);
  });
  it("is kept as a hash only", () => {
    const { code } = makeStandCode(job, INES, at(0));
    expect(JSON.stringify(db().select().from(standCodes).all())).not.toContain(code);
  });
});

it("whoever listens hears of every growth of the log, until he stops; a refused write is none", () => {
  let heard = 0;
  const stop = onGrowth(job, () => heard++);
  const write = (id: string, base: number, who = INES) =>
    writeLines(
      job,
      base,
      [{ id, takenAt: new Date().toISOString(), body: { kind: "touch", touch: "hung" } }],
      who,
    );
  const head = eventsAfter(job).at(-1)!.seq;
  write("touch-no-1", head);
  expect(heard).toBe(1);
  expect(write("touch-no-2", head, OSKAR).ok).toBe(false);
  expect(heard).toBe(1);
  stop();
  write("touch-no-3", head + 1);
  expect(heard).toBe(1);
});
