import { execFileSync } from "node:child_process";
import { expect, type Page } from "@playwright/test";
import type { JobRecord } from "@/core/record";
import { madeUpVin } from "@/demo/data/vehicles";
import { nextBar } from "./hands";

/** What is said of a vehicle when it is taken in. */
export type Arrival = {
  /** Without its check digit. */
  vin: string;
  customer: string;
  /** What was done to it, and where. */
  done: readonly (readonly [work: string, place: string | null])[];
  answers?: readonly string[];
  /** What it has to owe by that. */
  owed?: readonly string[];
};

/** A trailer is here whose camera was off: the shortest way to a routine. */
export const TRAILER_CAMERA_OFF = {
  done: [["Camera taken off and put back", "trailer"]],
  answers: ["It is here"],
} as const;

/** Takes in a vehicle with what was done to it; answers with the job's address. */
export async function takeInDone(page: Page, url: string, arrival: Arrival): Promise<string> {
  const { vin, customer, done, answers = [], owed = [] } = arrival;
  await page.goto(`${url}/take-in`);
  await page.getByLabel("VIN", { exact: true }).fill(madeUpVin(vin));
  for (const [work, place] of done) {
    const button = page.getByRole("button", { name: work });
    if (await button.isHidden()) await page.getByRole("button", { name: /^\d+ more$/ }).click();
    await button.click();
    if (place) await page.getByRole("button", { name: place, exact: true }).click();
  }
  for (const answer of answers) await page.getByRole("button", { name: answer }).click();
  await page.getByLabel("Customer", { exact: true }).fill(customer);
  const region = page.getByRole("region", { name: "Owed" });
  for (const line of owed) await expect(region).toContainText(line);
  await page.getByRole("button", { name: "Open the job" }).click();
  await page.waitForURL(/\/jobs\/[^/]+\/take-in$/);
  return page.url().replace(/\/take-in$/, "");
}

/** The record of a job, and its report as text. */
export async function papersOf(
  page: Page,
  url: string,
  job: string,
): Promise<{ record: JobRecord; report: string }> {
  const api = `${url}/api/jobs/${job.split("/").at(-1)}`;
  const record = (await (await page.request.get(`${api}/record`)).json()) as JobRecord;
  const report = execFileSync("pdftotext", ["-layout", "-", "-"], {
    input: await (await page.request.get(`${api}/report`)).body(),
    encoding: "utf8",
  });
  return { record, report };
}

/** Hands a job over, and reads what the shop keeps of it. */
export async function handOver(
  page: Page,
  url: string,
  job: string,
): Promise<{ record: JobRecord; report: string }> {
  await page.goto(`${job}/hand-over`);
  const next = nextBar(page);
  await next.getByRole("button", { name: "Hand over" }).click();
  await expect(next).toContainText("Handed over");
  await expect(page.getByText("All kept")).toBeVisible();
  return papersOf(page, url, job);
}
