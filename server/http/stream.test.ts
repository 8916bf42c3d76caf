import { expect, it } from "vitest";
import { eventStream } from "./stream";

it("what throws while a stream runs ends that stream, tells nobody else, and leaves no timer", async () => {
  let [ran, undone] = [0, 0];
  const response = eventStream(new Request("http://shop/"), "ines", ({ put, every }) => {
    every(5, () => {
      ran++;
      if (ran === 2) throw new Error("no such instrument");
      put("data: 1\n\n");
    });
    return () => void undone++;
  });
  expect(await response.text()).toBe("retry: 1500\n\ndata: 1\n\n");
  await new Promise((done) => setTimeout(done, 30));
  expect([ran, undone]).toEqual([2, 1]);
});
