import type { Page } from "@playwright/test";

/**
 * What a pair of hands did on the pages: a tap is one activation, an entry one value that was typed.
 */
export type Counted = { taps: string[]; entries: string[] };

/** Counts in the page itself, over all pages of the tab, whoever or whatever brings it about. */
export async function countHands(page: Page): Promise<void> {
  await page.addInitScript(() => {
    const KEY = "count-hands";
    const kept = (): Counted & { paused?: boolean } =>
      JSON.parse(sessionStorage.getItem(KEY) ?? '{"taps":[],"entries":[]}') as Counted;
    const add = (to: "taps" | "entries", what: string): void => {
      const all = kept();
      if (all.paused) return;
      all[to].push(`${location.pathname.split("/").at(-1)}: ${what}`);
      sessionStorage.setItem(KEY, JSON.stringify(all));
    };
    const dirty = new Set<HTMLInputElement>();
    const settle = (): void => {
      for (const field of dirty) add("entries", field.value || field.name || field.id || "a value");
      dirty.clear();
    };
    const called = (el: Element): string =>
      (el.getAttribute("aria-label") ?? el.textContent ?? "").trim().slice(0, 50);
    addEventListener(
      "input",
      (e) => e.target instanceof HTMLInputElement && !kept().paused && dirty.add(e.target),
      true,
    );
    addEventListener("focusout", settle, true);
    addEventListener(
      "click",
      (e) => {
        settle();
        const on = (e.target as Element).closest(
          "button, a, label, summary, [role=radio], [role=checkbox], [role=option], input[type=checkbox]",
        );
        // A label hands its touch on to its field: that is one activation.
        if (on && !(on instanceof HTMLLabelElement)) add("taps", called(on));
      },
      true,
    );
    addEventListener("keydown", (e) => e.key === "Enter" && settle(), true);
  });
}

/** What a stand-in of the simulated bay does in the page is not done by the hands. */
export async function byStandIn<T>(page: Page, act: () => Promise<T>): Promise<T> {
  const pause = (paused: boolean): Promise<void> =>
    page.evaluate((on) => {
      const all = JSON.parse(
        sessionStorage.getItem("count-hands") ?? '{"taps":[],"entries":[]}',
      ) as object;
      sessionStorage.setItem("count-hands", JSON.stringify({ ...all, paused: on }));
    }, paused);
  await pause(true);
  const result = await act();
  await pause(false);
  return result;
}

export const counted = (page: Page): Promise<Counted> =>
  page.evaluate(
    () =>
      JSON.parse(sessionStorage.getItem("count-hands") ?? '{"taps":[],"entries":[]}') as Counted,
  );
