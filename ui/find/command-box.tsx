"use client";

import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { Command } from "cmdk";
import { useRouter, usePathname } from "next/navigation";
import { useState, type ReactNode } from "react";
import { fits } from "@/core/book/fits";
import { STAGES } from "@/core/job/stage-list";
import { Dialog } from "../primitives/dialog";
import { useRested } from "../primitives/use-rested";
import { useSettings } from "../settings";
import { PLACES } from "../shop/places";
import { shopQueries } from "../shop-queries";

type Found = {
  kind: "job" | "sheet" | "vehicle" | "kit";
  id: string;
  title: string;
  detail: string;
  href: string;
};

const KINDS = { job: "Jobs", sheet: "Sheets", vehicle: "Vehicles", kit: "Kit" } as const;

async function ask(find: string): Promise<Found[]> {
  const response = await fetch(`/api/find?find=${encodeURIComponent(find)}`, {
    cache: "no-store",
  });
  if (!response.ok) throw new Error(`The shop answers ${response.status}.`);
  return (await response.json()) as Found[];
}

/** Finds a job, a sheet, a vehicle, a piece of kit; goes to a page or stage; changes a setting. */
export function CommandBox({ open, onClose }: { open: boolean; onClose: () => void }) {
  return (
    <Dialog open={open} onClose={onClose} title="Find or go to" wide>
      <Box onClose={onClose} />
    </Dialog>
  );
}

function Box({ onClose }: { onClose: () => void }) {
  const router = useRouter();
  const here = usePathname();
  const { theme, lengths, change } = useSettings();
  const [text, setText] = useState("");
  const find = useRested(text.trim());
  const query = useQuery(
    {
      queryKey: ["find", find],
      queryFn: () => ask(find),
      enabled: find !== "",
      placeholderData: keepPreviousData,
    },
    shopQueries(),
  );
  const found = text.trim() === "" ? [] : (query.data ?? []);
  const go = (href: string) => (): void => {
    onClose();
    router.push(href);
  };
  const job = /^\/jobs\/[^/]+/.exec(here)?.[0];
  const stages = STAGES.filter((s) => job && fits(`${s.n} ${s.name}`, text));
  const places = PLACES.filter((p) => p.href !== here && fits(p.name, text));
  const acts = [
    {
      name: theme === "light" ? "Night theme" : "Day theme",
      act: () => change({ theme: theme === "light" ? "night" : "light" }),
    },
    {
      name: lengths === "mm" ? "Lengths in inches" : "Lengths in millimetres",
      act: () => change({ lengths: lengths === "mm" ? "in" : "mm" }),
    },
  ].filter((a) => fits(a.name, text));
  const ids = [
    ...found.map((f) => `${f.kind} ${f.id}`),
    ...stages.map((s) => `stage ${s.id}`),
    ...places.map((p) => `place ${p.href}`),
    ...acts.map((a) => a.name),
  ];
  // What comes first is chosen until the keys choose another of the same list.
  const list = ids.join("\n");
  const [chosen, setChosen] = useState({ list: "", id: "" });
  const value = chosen.list === list ? chosen.id : (ids[0] ?? "");
  const settling = text.trim() !== find || query.isFetching;
  return (
    <Command
      shouldFilter={false}
      label="Find or go to"
      loop
      value={value}
      onValueChange={(id) => setChosen({ list, id })}
    >
      <Command.Input
        autoFocus
        value={text}
        onValueChange={setText}
        placeholder="Plate, name, VIN, sheet, vehicle, kit number, page"
        className="min-h-14 w-full border-b-2 border-ink bg-transparent px-1 text-xl outline-none placeholder:text-soft focus:border-act"
      />
      <Command.List className="mt-2 h-[min(56dvh,440px)] overflow-y-auto">
        <Command.Empty className="py-10 text-center text-lg text-soft">
          {query.isError
            ? "The shop does not answer. Pages and stages are found without it."
            : settling
              ? "Looking"
              : "Nothing fits."}
        </Command.Empty>
        {[...new Set(found.map((f) => f.kind))].map((kind) => (
          <Group key={kind} name={KINDS[kind]}>
            {found
              .filter((f) => f.kind === kind)
              .map((f) => (
                <Item key={f.id} id={`${kind} ${f.id}`} detail={f.detail} onSelect={go(f.href)}>
                  {f.title}
                </Item>
              ))}
          </Group>
        ))}
        <Group name="This job">
          {stages.map((s) => (
            <Item key={s.id} id={`stage ${s.id}`} onSelect={go(`${job}/${s.id}`)}>
              {`${s.n} ${s.name}`}
            </Item>
          ))}
        </Group>
        <Group name="Go to">
          {places.map((p) => (
            <Item key={p.href} id={`place ${p.href}`} onSelect={go(p.href)}>
              {p.name}
            </Item>
          ))}
        </Group>
        <Group name="On this tablet">
          {acts.map((a) => (
            <Item
              key={a.name}
              id={a.name}
              onSelect={() => {
                onClose();
                a.act();
              }}
            >
              {a.name}
            </Item>
          ))}
        </Group>
      </Command.List>
    </Command>
  );
}

/** A heading with what stands under it; nothing where there is nothing. */
const Group = ({ name, children }: { name: string; children: ReactNode[] }) =>
  children.length > 0 && (
    <Command.Group
      heading={name}
      className="mb-2 [&_[cmdk-group-heading]]:px-3 [&_[cmdk-group-heading]]:py-1 [&_[cmdk-group-heading]]:text-sm [&_[cmdk-group-heading]]:font-semibold [&_[cmdk-group-heading]]:text-soft"
    >
      {children}
    </Command.Group>
  );

const Item = ({
  id,
  detail,
  onSelect,
  children,
}: {
  id: string;
  detail?: string;
  onSelect: () => void;
  children: string;
}) => (
  <Command.Item
    value={id}
    onSelect={onSelect}
    className="flex min-h-14 cursor-pointer flex-wrap content-center items-center gap-x-4 border-l-4 border-transparent px-3 text-lg data-[selected=true]:border-act data-[selected=true]:bg-wash"
  >
    <span className="min-w-0 font-semibold leading-tight">{children}</span>
    {detail && <span className="min-w-0 truncate text-base text-soft">{detail}</span>}
  </Command.Item>
);
