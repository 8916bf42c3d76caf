// npm run soak: what takes longer than a test may: kills, full disks, copies under load, a flood of
// wrong bodies, set-outs where reality differs from what is said. `-- --short` is what every change
// has to pass; naming parts (kills, disks, files, copies, fuzz, reality, causes, drives, bays, days, properties) runs those alone.
import { bays } from "./soak/bays";
import { causes } from "./soak/causes";
import { copies } from "./soak/copies";
import { days } from "./soak/days";
import { disks, files } from "./soak/disks";
import { drives } from "./soak/drives";
import { fuzz } from "./soak/fuzz";
import { tally } from "./soak/house";
import { kills } from "./soak/kills";
import { properties } from "./soak/properties";
import { reality } from "./soak/reality/reality";
import { built, packages } from "./ready.mjs";

const short = process.argv.includes("--short");
const chosen = process.argv.slice(2).filter((a) => !a.startsWith("--"));
packages();
built();
const from = Date.now();
for (const [name, part] of [
  ["kills", () => kills(short ? 60 : 300)],
  ["disks", disks],
  ["files", files],
  ["copies", copies],
  ["fuzz", () => fuzz(short ? 1000 : 10_000, short ? 25 : 250)],
  ["reality", () => reality(short ? 24 : 3000)],
  ["causes", () => causes(short ? 60 : 1000)],
  ["drives", () => drives(short ? 400 : 1000)],
  ["bays", () => bays(short ? 60 : 200)],
  [
    "days",
    () =>
      days(short ? { small: 100, full: 20, lived: 200 } : { small: 200, full: 100, lived: 1000 }),
  ],
  ["properties", () => properties(short ? 0 : 5)],
] as const) {
  if (chosen.length > 0 && !chosen.includes(name)) continue;
  const start = Date.now();
  console.log(`\n${name}`);
  await part();
  console.log(`  ${((Date.now() - start) / 1000).toFixed(0)} s`);
}
console.log(`\nsoak, ${short ? "short" : "long"}: ${((Date.now() - from) / 1000).toFixed(0)} s`);
console.log(`soak: ${tally.passed} passed, ${tally.failed} failed`);
process.exit(tally.failed === 0 ? 0 : 1);
