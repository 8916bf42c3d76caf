"use client";

import { EVENTS, KINDS, PLACES, SYSTEMS, type RuleBook } from "@/core/owed";
import { ChoiceField, SetField, TextField, YesNo } from "../book/fields";
import { RuleForm, type RuleFormProps } from "./rule-form";

export type Rule = RuleBook["rules"][number];

/** One rule, written as a sentence one could read to the customer. */
export const EditRule = (props: RuleFormProps<Rule>) => (
  <RuleForm {...props} title="rule">
    {(at) => (
      <>
        {props.editing?.at === null && (
          <TextField label="Name of the rule, in small letters and dashes" {...at("id")} />
        )}
        <SetField
          label="When any of these was done or happened"
          choices={Object.entries(EVENTS)}
          {...at("when")}
        />
        <SetField
          label="at one of these places; none: anywhere"
          choices={Object.entries(PLACES)}
          {...at("at")}
          onChange={(v) => at("at").onChange((v as string[]).length > 0 ? v : undefined)}
        />
        <ChoiceField label="this system" choices={Object.entries(SYSTEMS)} {...at("system")} />
        <YesNo label="if it sits where that was done" {...at("near")} />
        <ChoiceField label="owes this" choices={Object.entries(KINDS)} {...at("kind")} />
        <TextField label="Because, in one sentence for the customer" {...at("reason")} />
        <TextField label="Source: the shop’s own sheet or book" {...at("source")} />
        <TextField
          label="Cancelled by; never an empty fault memory"
          {...at("cancelledBy")}
          onChange={(v) => at("cancelledBy").onChange(v ?? null)}
        />
      </>
    )}
  </RuleForm>
);
