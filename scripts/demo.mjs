// npm run demo: installs what is missing, builds, makes the made-up shop, serves it. `-- --fresh`
// makes the shop anew.
import { spawn } from "node:child_process";
import path from "node:path";
import process from "node:process";
import { built, packages, root, seconds, step } from "./ready.mjs";

const port = process.env.PORT ?? "3000";
const env = {
  IRIDEL_DB: process.env.IRIDEL_DB ?? path.join(root, "var/demo.sqlite"),
  IRIDEL_DEMO: "1",
};

packages();
built();
step("demo shop", "npx", ["tsx", "demo/seed.ts", ...process.argv.slice(2)], env);

const server = spawn("npx", ["next", "start", "-p", port], {
  cwd: root,
  stdio: ["ignore", "pipe", "inherit"],
  env: { ...process.env, ...env, NODE_ENV: "production" },
});
let told = false;
server.stdout.on("data", (chunk) => {
  if (told || !String(chunk).includes("Ready")) return;
  told = true;
  console.log(`\nIridel's demo shop is open after ${seconds()}:  http://localhost:${port}`);
  console.log(`People and PINs:  http://localhost:${port}/demo      Stop with Ctrl+C.`);
});
server.on("exit", (code) => process.exit(code ?? 0));
for (const signal of ["SIGINT", "SIGTERM"]) process.on(signal, () => server.kill(signal));
