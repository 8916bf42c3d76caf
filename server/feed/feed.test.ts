import { db } from "../db/client";
import { people } from "../db/schema";
import { beforeAll, describe, expect, it } from "vitest";
import type { TabletEvent } from "@/core/job";
import { INES, openTestShop, OSKAR } from "@/tests/shop-database";
import { INTAKE } from "@/tests/fixtures";
import { eventsAfter } from "../jobs/log";
import { findJob } from "../jobs/store";
import { takeIn } from "../jobs/take-in";
import { writeLines } from "../jobs/append";
import { technician } from "@/demo/technician";
import { changePerson } from "../people/store";
import {
  feedOf,
  liveIn,
  makeFeedToken,
  parseFeed,
  revokeFeedToken,
  takeFeed,
  takeLive,
} from "./feed";
import { onFigure } from "./live";

let [job, number] = ["", 0];
beforeAll(() => {
  openTestShop();
  db()
    .insert(people)
    .values({ id: "mara", name: "Mara Quill", initials: "MQ", role: "lead", pinHash: "-" })
    .run();
  job = takeIn(INTAKE, INES);
  number = findJob(job)!.number;
});
const feed = () => feedOf(makeFeedToken("G-1", INES))!;

describe("an instrument that posts", () => {
  it("is known by its token, the newest one alone", () => {
    const old = makeFeedToken("G-1", INES);
    const token = makeFeedToken("G-1", INES);
    expect(feedOf(old)).toBeNull();
    expect(feedOf(token)).toMatchObject({ instrumentId: "G-1", person: { id: "ines" } });
    expect(() => makeFeedToken("X-9", INES)).toThrow(/no such instrument/);
  });
  it("writes a reading once, however often it sends it, in JSON or CSV, in its own unit", () => {
    const json = parseFeed(
      JSON.stringify({ job: number, readings: [{ id: 7, slot: "panel-rl", value: "5.472 m" }] }),
      "application/json",
    );
    expect(takeFeed(feed(), json)).toEqual([{ id: "7", outcome: "taken" }]);
    const csv = parseFeed(
      `job,id,slot,value\n${number},7,panel-rl,5.472 m\n${number},8,panel-rr,5470\n`,
      "text/csv",
    );
    expect(takeFeed(feed(), csv)).toEqual([
      { id: "7", outcome: "known" },
      { id: "8", outcome: "taken" },
    ]);
    const readings = eventsAfter(job).flatMap((e) =>
      e.body.kind === "reading" ? [[e.body.slotId, e.body.shown, e.body.instrumentId]] : [],
    );
    expect(readings).toEqual([
      ["panel-rl", expect.closeTo(5472, 9), "G-1"],
      ["panel-rr", 5470, "G-1"],
    ]);
  });
  it("shows a figure that is turned to whoever watches, and writes it nowhere", () => {
    const seen: unknown[] = [];
    const quiet = onFigure(job, (f) => seen.push(f));
    const head = eventsAfter(job).length;
    const live = (slot: string, value: string, no = number) =>
      takeLive(feed(), liveIn(JSON.stringify({ job: no, live: { slot, value } }))!);
    live("panel-rl", "5.472 m");
    live("panel-rl", "5479");
    expect(seen).toEqual([
      { targetId: "first", slotId: "panel-rl", shown: expect.closeTo(5472, 9) as number },
      { targetId: "first", slotId: "panel-rl", shown: 5479 },
    ]);
    expect(() => live("panel-rl", "5.4")).toThrow("Meant as 5.4 metres?");
    expect(() => live("panel-rl", "5479", 9999)).toThrow("job: there is no job 9999.");
    expect(() => liveIn(`{"job": 1, "live": {"slot": "panel-rl"}}`)).toThrow(/live.value/);
    expect(liveIn(`job,id,slot,value\n1,2,panel-rl,3`)).toBeNull();
    expect(seen).toHaveLength(2);
    expect(eventsAfter(job)).toHaveLength(head);
    quiet();
  });
  it("is believed to come through a panel seated anew where that was asked, and only then", async () => {
    const ines = technician(INES, "2026-11-03T08:00:00.000Z");
    ines.open(INTAKE, "feed");
    await ines.check("ready");
    ines.write({ kind: "school", school: "wheel-panels" });
    ines.follow(({ next }) => next.kind === "read" && next.candidate.anew);
    const seated = (): unknown[] =>
      eventsAfter(ines.jobId).flatMap((e) => (e.body.kind === "reading" ? [e.body] : []));
    const before = seated().length;
    const asked = ines.follow(() => true).next;
    const slot = asked.kind === "read" ? asked.candidate.slot : null;
    const no = findJob(ines.jobId)!.number;
    const post = (id: string, of: string, value: string) =>
      takeFeed(
        feed(),
        parseFeed(JSON.stringify({ job: no, readings: [{ id, slot: of, value }] }), ""),
      );
    const shown = asked.kind === "read" ? asked.candidate.expected : 0;
    const other = slot!.id === "panel-fl" ? "panel-rl" : "panel-fl";
    expect(post("a", other, shown.toFixed(0))).toEqual([{ id: "a", outcome: "taken" }]);
    const wrong = eventsAfter(ines.jobId).at(-1)!.id;
    ines.write({ kind: "strike", target: wrong, reason: "The wrong one" });
    expect(post("b", slot!.id, shown.toFixed(0))).toEqual([{ id: "b", outcome: "taken" }]);
    expect(seated().slice(before)).toEqual([
      expect.not.objectContaining({ anew: true }),
      expect.objectContaining({ slotId: slot!.id, anew: true }),
    ]);
  });
  it("counts numbers per job, and refuses another reading under a number it knows", () => {
    const post = (no: number, value: string) =>
      takeFeed(
        feed(),
        parseFeed(
          JSON.stringify({ job: no, readings: [{ id: "n-1", slot: "panel-rl", value }] }),
          "",
        ),
      );
    expect(post(number, "5481")).toEqual([{ id: "n-1", outcome: "taken" }]);
    expect(post(number, "5481")).toEqual([{ id: "n-1", outcome: "known" }]);
    expect(post(number, "5499")).toMatchObject([
      { outcome: "refused", why: expect.stringMatching(/^id: n-1 was another reading/) as string },
    ]);
    const other = takeIn(INTAKE, INES);
    expect(post(findJob(other)!.number, "5481")).toEqual([{ id: "n-1", outcome: "taken" }]);
    expect(eventsAfter(other)).toHaveLength(2);
  });
  it("writes nothing into a job that is handed over, and nothing once its token is revoked or its maker may not", () => {
    const over = takeIn(INTAKE, INES);
    const line = (id: string, body: TabletEvent) => ({
      id,
      takenAt: new Date().toISOString(),
      body,
    });
    const done = line("check-one", {
      kind: "check",
      stage: "ready",
      itemId: "tyres",
      outcome: "accepted",
      reason: "seen",
    });
    writeLines(over, 1, [done, line("over-one", { kind: "hand-over" })], INES);
    const body = {
      job: findJob(over)!.number,
      readings: [{ id: "late", slot: "panel-rl", value: "5481" }],
    };
    expect(() => takeFeed(feed(), body)).toThrow(/is handed over; nothing more is read into it/);
    const token = makeFeedToken("G-1", OSKAR);
    changePerson("oskar", { name: "Oskar Veld", initials: "OV", role: "viewer" }, false, INES);
    expect(feedOf(token)).toBeNull();
    const hers = makeFeedToken("G-1", INES);
    revokeFeedToken("G-1", INES);
    expect(feedOf(hers)).toBeNull();
    expect(() => revokeFeedToken("G-1", INES)).toThrow(/no token that could be revoked/);
  });
  it("has impossible values and slots of others questioned at once, and writes the rest", () => {
    const head = eventsAfter(job).length;
    const body = parseFeed(
      JSON.stringify({
        job: number,
        readings: [
          { id: "a", slot: "panel-fl", value: "2.86" },
          { id: "b", slot: "tape-fl-l", value: 2900 },
          { id: "c", slot: "panel-fl", value: 2860 },
        ],
      }),
      "",
    );
    const [a, b, c] = takeFeed(feed(), body);
    expect(a).toMatchObject({
      outcome: "refused",
      why: expect.stringMatching(/Meant as 2.86 metres\?/) as string,
    });
    expect(b).toMatchObject({
      outcome: "refused",
      why: expect.stringMatching(/G-1 reads panel-rl, panel-rr, panel-fl/) as string,
    });
    expect(c).toEqual({ id: "c", outcome: "taken" });
    expect(eventsAfter(job)).toHaveLength(head + 1);
  });
  it.each([
    ["not JSON", "{", "application/json", /neither JSON/],
    ["no readings", JSON.stringify({ job: 1, readings: [] }), "application/json", /^readings/],
    [
      "a number with a path in it",
      JSON.stringify({ job: 1, readings: [{ id: "../x", slot: "s", value: "1" }] }),
      "",
      /^readings\.0\.id/,
    ],
    [
      "two jobs in one table",
      "job,id,slot,value\n1,a,s,1\n2,b,s,1",
      "text/csv",
      /one post is for one job/,
    ],
    ["a table without values", "job,id\n1,a", "text/csv", /^readings\.0\./],
  ])("is told what is wrong: %s", (_, text, type, words) =>
    expect(() => parseFeed(text, type)).toThrow(words),
  );
  it("names a job that is not there", () => {
    expect(() =>
      takeFeed(feed(), { job: 9, readings: [{ id: "x", slot: "panel-rl", value: "1" }] }),
    ).toThrow(/no job 9/);
  });
});
