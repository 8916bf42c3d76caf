"use client";

import { SYSTEMS, type RuleBook } from "@/core/owed";
import { ChoiceField, NumberField, SetField, TextField, YesNo } from "../book/fields";
import { RuleForm, type RuleFormProps } from "./rule-form";

export type Order = RuleBook["orders"][number];
export type Effort = RuleBook["efforts"][number];

const ANY: [string, string] = ["", "any"];
const SYSTEM_CHOICES: [string, string][] = [
  ANY,
  ...(Object.entries(SYSTEMS) as [string, string][]),
];
const KIND_CHOICES: [string, string][] = [
  ANY,
  ["static", "static"],
  ["dynamic", "dynamic"],
  ["learn", "learn"],
];

/** What comes before what. */
export const EditOrder = (props: RuleFormProps<Order>) => (
  <RuleForm {...props} title="order">
    {(at) => (
      <>
        {props.editing?.at === null && (
          <TextField label="Name of the order, in small letters and dashes" {...at("id")} />
        )}
        <ChoiceField
          label="First: what kind"
          choices={KIND_CHOICES}
          {...at("first.kind")}
          value={at("first.kind").value ?? ""}
        />
        <ChoiceField
          label="First: of which system"
          choices={SYSTEM_CHOICES}
          {...at("first.system")}
          value={at("first.system").value ?? ""}
        />
        <ChoiceField
          label="Then: what kind"
          choices={KIND_CHOICES}
          {...at("then.kind")}
          value={at("then.kind").value ?? ""}
        />
        <ChoiceField
          label="Then: of which system"
          choices={SYSTEM_CHOICES}
          {...at("then.system")}
          value={at("then.system").value ?? ""}
        />
        <YesNo label="Only within one system" {...at("sameSystem")} />
        <TextField label="Because" {...at("why")} />
      </>
    )}
  </RuleForm>
);

const STATES: { path: string; label: string; choices: [string, string][] }[] = [
  { path: "needs.bonnet", label: "Bonnet", choices: [ANY, ["open", "open"], ["shut", "shut"]] },
  { path: "needs.lights", label: "Lights", choices: [ANY, ["on", "on"], ["off", "off"]] },
  { path: "needs.engine", label: "Engine", choices: [ANY, ["running", "running"], ["off", "off"]] },
  { path: "needs.doors", label: "Doors", choices: [ANY, ["open", "open"], ["shut", "shut"]] },
  { path: "nose", label: "Nose in the bay", choices: [ANY, ["in", "in"], ["out", "out"]] },
];
const SIDES: [string, string][] = [
  ["ahead", "ahead"],
  ["behind", "behind"],
  ["left", "vehicle left"],
  ["right", "vehicle right"],
];

/** What one calibration takes: time, boards, room, and how the vehicle has to be. */
export const EditEffort = ({ boards, ...props }: RuleFormProps<Effort> & { boards: string[] }) => (
  <RuleForm {...props} title="effort">
    {(at) => (
      <>
        <ChoiceField label="System" choices={SYSTEM_CHOICES.slice(1)} {...at("system")} />
        <ChoiceField label="Kind" choices={KIND_CHOICES.slice(1, 4)} {...at("kind")} />
        <div className="grid grid-cols-2 gap-x-6 gap-y-2 sm:grid-cols-5">
          <NumberField label="Bay" unit="min" {...at("bayMinutes")} />
          <NumberField label="Road" unit="min" {...at("roadMinutes")} />
          <NumberField label="Of it setting up" unit="min" {...at("setUpMinutes")} />
          <NumberField label="Clearing away" unit="min" {...at("clearMinutes")} />
          <NumberField label="Room ahead" unit="m" {...at("roomM.ahead")} />
          <NumberField label="Room behind" unit="m" {...at("roomM.behind")} />
          <NumberField label="Each side" unit="m" {...at("roomM.sides")} />
        </div>
        <SetField
          label="Boards and mats"
          choices={[...new Set([...boards, ...(props.editing?.item.boards ?? [])])].map((b) => [
            b,
            b,
          ])}
          {...at("boards")}
        />
        <div className="grid gap-x-6 gap-y-2 sm:grid-cols-2">
          <SetField label="Its things stand" choices={SIDES} {...at("stands")} />
          <SetField label="Nothing else may stand" choices={SIDES} {...at("clear")} />
          {STATES.map((s) => (
            <ChoiceField
              key={s.path}
              label={s.label}
              choices={s.choices}
              {...at(s.path)}
              value={at(s.path).value ?? ""}
            />
          ))}
        </div>
        <TextField
          label="Set-up it shares with others, by a name of your own; none: its own"
          {...at("setUp")}
          onChange={(v) => at("setUp").onChange(v ?? null)}
        />
      </>
    )}
  </RuleForm>
);
