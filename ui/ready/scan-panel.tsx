"use client";

import { fittedTo, scanLogOf } from "@/core/job";
import { batteryTrend } from "@/core/ready";
import { compareScans, isMissed, scanState, type ScanState } from "@/core/scan";
import { formatNumber } from "@/core/units";
import { useJob } from "../bench/job-store";
import { Button } from "../primitives/button";
import { Mark } from "../primitives/marks";
import { CodeTable } from "../scan/code-table";
import { useCommand } from "../bench/use-command";
import { useTimes } from "../settings";

export type ScanCommand = "read" | "volts" | "clear" | "sign-in" | "drop";

/**
 * What the control units say: which answer, what they have stored, and whether the gateway lets one
 * write.
 */
export function ScanPanel({
  carried,
}: {
  /** Reading is what the Next bar asks for: it stands there. */
  carried: boolean;
}) {
  const { clockTime } = useTimes();
  const { events, ground, me } = useJob();
  const { busy, command } = useCommand<ScanCommand>("scan");
  const s = scanState(scanLogOf(events), ground.vehicle.gateway);
  const fitted = fittedTo(ground.vehicle, ground.intake.answers).map((f) => f.system);
  const units = s.baseline && s.last ? compareScans(s.baseline, s.last, fitted) : [];
  const stored = units.some((u) => u.codes.length > 0);
  const writes = me.role !== "viewer";
  return (
    <div className="flex flex-col gap-3">
      <Gateway state={s} busy={busy} command={command} />
      {s.trouble && (
        <p role="alert" className="text-lg text-loose">
          {s.trouble}
        </p>
      )}
      {s.last ? (
        <>
          <ul className="grid grid-cols-2 gap-1 lg:grid-cols-3" aria-label="Control units">
            {s.last.modules.map((m) => (
              <li
                key={m.id}
                className={`flex min-h-12 items-center gap-2 border px-3 text-base ${isMissed(m, fitted) ? "border-dashed border-loose" : "border-hairline"}`}
              >
                <Mark
                  state={
                    isMissed(m, fitted)
                      ? "doubt"
                      : !m.answers
                        ? "none"
                        : m.codes.length > 0
                          ? "loose"
                          : "settled"
                  }
                  size={12}
                />
                <span className="min-w-0 flex-1 leading-tight">{m.name}</span>
                <span className="figure text-sm text-soft">
                  {isMissed(m, fitted)
                    ? "no answer"
                    : !m.answers
                      ? "not fitted"
                      : m.codes.length > 0
                        ? m.codes.length
                        : ""}
                </span>
              </li>
            ))}
          </ul>
          {s.last.modules.some((m) => isMissed(m, fitted)) && (
            <p className="text-base text-loose">
              A control unit does not answer. Check supply and fuses and scan again; if it stays
              silent, accept it with a reason or stop the job.
            </p>
          )}
          {stored && <CodeTable units={units} changes={s.last !== s.baseline} />}
          {!stored && <p className="text-lg">No codes. That cancels nothing that is owed.</p>}
          <p className="text-sm text-soft">
            Last scan {clockTime(s.last.at)}, supply {formatNumber(s.last.volts, 2)} V. The first
            scan of {clockTime(s.baseline!.at)} is kept as the baseline.
          </p>
        </>
      ) : (
        <p className="text-lg text-soft">
          Not scanned yet. The first scan is kept as the baseline.
        </p>
      )}
      {writes && (
        <div className="flex flex-wrap gap-2">
          {!carried && (
            <Button
              look="plain"
              size="large"
              disabled={busy !== null}
              onClick={() => void command("read")}
            >
              {busy === "read" ? "Scanning" : s.last ? "Scan again" : "Scan all control units"}
            </Button>
          )}
          {s.last && s.last.modules.some((m) => m.codes.length > 0) && (
            <Button
              look="quiet"
              size="large"
              disabled={busy !== null}
              onClick={() => void command("clear")}
            >
              {busy === "clear" ? "Clearing" : "Clear codes"}
            </Button>
          )}
        </div>
      )}
    </div>
  );
}

/** Where the gateway's lock stands, and the way through it; nothing for a vehicle without one. */
export function Gateway({
  state: s,
  busy,
  command,
}: {
  state: ScanState;
  busy: string | null;
  command: (c: ScanCommand) => Promise<boolean>;
}) {
  const { head, me } = useJob();
  const writes = me.role !== "viewer";
  if (s.gateway === "none") return null;
  return (
    <p className="flex flex-wrap items-center gap-3 border-l-4 border-loose bg-paper px-3 py-2 text-base">
      <Mark state={s.gateway === "open" ? "settled" : "loose"} />
      <span className="min-w-0 basis-52 grow">
        {s.gateway === "open"
          ? "Gateway open: clearing and routines are let through while the network holds."
          : "Gateway locked: reading works, clearing and routines are refused until you sign in over the network."}
      </span>
      {writes && s.gateway === "locked" && (
        <Button look="plain" disabled={busy !== null} onClick={() => void command("sign-in")}>
          {busy === "sign-in" ? "Signing in" : "Sign in to the gateway"}
        </Button>
      )}
      {writes && head.simulated && s.gateway === "open" && (
        <Button
          look="quiet"
          className="text-soft"
          disabled={busy !== null}
          onClick={() => void command("drop")}
        >
          Simulate a network drop
        </Button>
      )}
    </p>
  );
}

/** The supply over time and what it leaves. */
export function BatteryPanel({ minVolts, carried }: { minVolts: number; carried: boolean }) {
  const { events, ground, me } = useJob();
  const { busy, command } = useCommand<ScanCommand>("scan");
  const { voltsLog } = scanState(scanLogOf(events), ground.vehicle.gateway);
  const trend = batteryTrend(voltsLog, minVolts);
  const last = voltsLog.at(-1);
  const start = voltsLog[0]?.atS ?? 0;
  const span = Math.max(30, (last?.atS ?? 0) - start);
  const at = (p: { atS: number; volts: number }): [number, number] => [
    10 + (280 * (p.atS - start)) / span,
    100 - ((p.volts - 11) / 3) * 90,
  ];
  return (
    <div className="flex flex-col gap-3">
      <div className="flex flex-wrap items-end gap-x-10 gap-y-2">
        <p>
          <span className="block text-sm text-soft">Supply</span>
          <span
            className={`figure text-5xl font-semibold ${last && last.volts < minVolts ? "text-loose" : ""}`}
          >
            {last ? `${formatNumber(last.volts, 2)} V` : "–"}
          </span>
        </p>
        <p>
          <span className="block text-sm text-soft">Until {formatNumber(minVolts, 1)} V</span>
          <span className="figure text-3xl font-semibold">
            {!trend
              ? "log three readings"
              : trend.minutesLeft === null
                ? "not falling"
                : `${formatNumber(trend.minutesLeft)} min`}
          </span>
        </p>
        {me.role !== "viewer" && !carried && (
          <Button
            look="plain"
            size="large"
            disabled={busy !== null}
            onClick={() => void command("volts")}
          >
            {busy ? "Reading" : "Read the supply"}
          </Button>
        )}
      </div>
      {voltsLog.length > 1 && (
        <svg
          viewBox="0 0 300 110"
          className="h-40 w-full"
          role="img"
          aria-label={`Supply over ${Math.round(span / 60)} minutes`}
          preserveAspectRatio="none"
        >
          <path
            d={`M0 ${100 - ((minVolts - 11) / 3) * 90}H300`}
            stroke="var(--loose)"
            strokeWidth={1}
            strokeDasharray="5 4"
            vectorEffect="non-scaling-stroke"
          />
          <path
            d={`M${voltsLog.map((p) => at(p).join(" ")).join("L")}`}
            fill="none"
            stroke="var(--ink)"
            strokeWidth={2}
            vectorEffect="non-scaling-stroke"
          />
          {voltsLog.map((p) => (
            <circle key={p.atS} cx={at(p)[0]} cy={at(p)[1]} r={2.2} fill="var(--ink)" />
          ))}
        </svg>
      )}
      <p className="text-base text-soft">
        With the maintainer on the supply holds; without it, ignition-on work drains it and the
        routine stops below its floor.
      </p>
    </div>
  );
}
