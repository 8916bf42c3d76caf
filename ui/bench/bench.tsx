"use client";

import dynamic from "next/dynamic";
import { usePathname } from "next/navigation";
import { createContext, useContext, useMemo, useRef, useState, type ReactNode } from "react";
import { WhenAwake } from "../primitives/awake";
import { Dialog } from "../primitives/dialog";
import { patiently } from "../primitives/patiently";
import { useLater } from "../primitives/use-later";
import { useJob } from "./job-store";
import { useKeys, type KeyActs } from "./keys";
import { Rail } from "./rail";
import { Slip } from "./slip";
import { TopBar } from "./top-bar";
import { useNextCalibration } from "./use-next-calibration";

// Two tablets seldom write at once, what waits here is looked at when the shop is out of reach, and the
// keys are looked up once.
const LATER = { rest: patiently(() => import("./later")) };
const CommandBox = dynamic(() => LATER.rest().then((m) => m.CommandBox));
const KeySheet = dynamic(() => LATER.rest().then((m) => m.KeySheet));
const Clock = dynamic(() => LATER.rest().then((m) => m.Clock));
const Conflict = dynamic(() => LATER.rest().then((m) => m.Conflict));
const RunClock = dynamic(() => LATER.rest().then((m) => m.RunClock));
const SupplyClock = dynamic(() => LATER.rest().then((m) => m.SupplyClock));
const KeptHere = dynamic(() => LATER.rest().then((m) => m.KeptHere));
// A job mostly is of one calibration.
const Calibrations = dynamic(() => import("./calibrations").then((m) => m.Calibrations));

/** Lets a stage hang its own acts on the bench's keys. */
const StageKeys = createContext<{ current: KeyActs }>({ current: {} });
export const useStageKeys = (): { current: KeyActs } => useContext(StageKeys);

/** Stages that each calibration has for itself. */
const OWN_STAGES = new Set(["set-out", "run", "drive", "prove"]);

/** The bench: rail, surface, slip; each stage brings its own surface and its own Next bar. */
export function Bench({ children }: { children: ReactNode }) {
  const { head, ground, notice, dismissNotice, connection, outbox } = useJob();
  const rested = useLater(LATER);
  const waits =
    outbox.stuck.length > 0 ||
    outbox.foreign.length > 0 ||
    (connection.kind === "offline" && connection.message !== null);
  const [over, setOver] = useState<"find" | "keys" | "slip" | null>(null);
  const close = (): void => setOver(null);
  const stageKeys = useRef<KeyActs>({});
  const path = usePathname();
  const turn = useNextCalibration();
  const acts = useMemo<KeyActs>(
    () => ({
      "/": () => setOver("find"),
      "?": () => setOver("keys"),
      s: () => setOver("slip"),
      t: () => stageKeys.current.t?.(),
      n: () => stageKeys.current.n?.(),
      u: () => stageKeys.current.u?.(),
      w: () => stageKeys.current.w?.(),
      x: () => stageKeys.current.x?.(),
      k: () => turn?.(),
    }),
    [turn],
  );
  useKeys(head.id, acts);
  return (
    <StageKeys.Provider value={stageKeys}>
      <div className="flex h-dvh flex-col">
        <WhenAwake>
          <TopBar onKeys={() => setOver("keys")} onSlip={() => setOver("slip")}>
            {rested && <Clock />}
          </TopBar>
        </WhenAwake>
        <div className="flex min-h-0 flex-1 flex-col md:flex-row">
          <Rail />
          <div key={path} className="flex min-h-0 min-w-0 flex-1 flex-col">
            {ground.calibrations.length > 1 && OWN_STAGES.has(path.split("/").at(-1) ?? "") && (
              <Calibrations />
            )}
            {children}
          </div>
          <div className="hidden min-h-0 w-[264px] shrink-0 flex-col border-l border-hairline p-2 lg:flex">
            <Slip />
          </div>
        </div>
        {rested && <SupplyClock />}
        {rested && <RunClock onRun={path.endsWith("/run")} />}
        {connection.kind === "conflict" && <Conflict />}
        {waits && <KeptHere />}
        {notice && (
          <div
            role="alert"
            className="flex items-center justify-between gap-4 border-t-4 border-loose bg-sheet px-4 py-2 text-lg"
          >
            <span>{notice}</span>
            <button
              type="button"
              onClick={dismissNotice}
              className="min-h-12 min-w-12 rounded-md font-semibold hover:bg-wash"
            >
              Read
            </button>
          </div>
        )}
      </div>
      {over === "find" && <CommandBox open onClose={close} />}
      {over === "keys" && <KeySheet open onClose={close} />}
      <Dialog open={over === "slip"} onClose={close} title="Slip">
        <div className="flex max-h-[70dvh] flex-col">
          <Slip />
        </div>
      </Dialog>
    </StageKeys.Provider>
  );
}

/** The two parts every stage has: its instrument above, the next act below. */
export function Stage({
  title,
  children,
  next,
}: {
  title: string;
  children: ReactNode;
  next: ReactNode;
}) {
  return (
    <WhenAwake>
      <main
        aria-label={title}
        tabIndex={0}
        className="-outline-offset-2 flex min-h-0 flex-1 flex-col overflow-y-auto"
      >
        {children}
      </main>
      {next}
    </WhenAwake>
  );
}
