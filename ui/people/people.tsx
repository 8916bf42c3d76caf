"use client";

import { useRouter } from "next/navigation";
import { useState } from "react";
import { ListTable, type Column } from "../lists/list-table";
import { Button } from "../primitives/button";
import { Mark } from "../primitives/marks";
import { Dialog } from "../primitives/dialog";
import { PersonDialog, PinDialog, useSend } from "./person-dialog";
import { ROLES, type Role } from "./roles";
import { useTimes } from "../settings";

type Row = { id: string; name: string; initials: string; role: Role; retiredAt: string | null };
type Answer = Promise<{ ok: true } | { ok: false; message: string }>;
type Given = { name: string; initials: string; role: string };
type Props = {
  people: Row[];
  me: string;
  lead: boolean;
  enter: (person: Given, pin: string) => Answer;
  write: (id: string, person: Given, gone: boolean) => Answer;
  newPin: (id: string, pin: string) => Answer;
  ownPin: (old: string, pin: string) => Answer;
  erase: (id: string) => Answer;
};

/** Who works here: each with a role, initials for the slip, and a PIN. */
export function People({ people, me, lead, enter, write, newPin, ownPin, erase }: Props) {
  const { dateAndTime } = useTimes();
  const router = useRouter();
  const [editing, setEditing] = useState<Row | "new" | null>(null);
  const [pinOf, setPinOf] = useState<Row | null>(null);
  const [erasing, setErasing] = useState<Row | null>(null);
  const done = (): void => {
    setEditing(null);
    setPinOf(null);
    router.refresh();
  };
  const columns: Column<Row>[] = [
    {
      id: "mark",
      name: "",
      track: "16px",
      cell: (p) => <Mark state={p.retiredAt ? "none" : "settled"} size={16} />,
    },
    {
      id: "name",
      name: "Name",
      track: "1.2fr",
      leads: true,
      value: (p) => p.name,
      cell: (p) => (
        <span className={`text-xl font-semibold leading-tight ${p.retiredAt ? "text-soft" : ""}`}>
          {p.name}
        </span>
      ),
    },
    {
      id: "initials",
      name: "Initials",
      track: "80px",
      wideOnly: true,
      value: (p) => p.initials,
      cell: (p) => <span className="figure text-lg font-semibold">{p.initials}</span>,
    },
    {
      id: "role",
      name: "Role",
      track: "1.6fr",
      value: (p) => `${p.retiredAt ? 1 : 0} ${p.role}`,
      cell: (p) => (
        <span className="text-base">
          {p.role}
          <span className="text-soft">
            {p.retiredAt
              ? `, left ${dateAndTime(p.retiredAt)}`
              : `: ${ROLES.find((r) => r.id === p.role)!.may}`}
          </span>
        </span>
      ),
    },
    {
      id: "acts",
      name: "",
      track: "17rem",
      under: true,
      cell: (p) => (
        <span className="-ml-3 flex flex-wrap md:ml-0">
          {p.id === me && (
            <Button look="quiet" onClick={() => setPinOf(p)}>
              Change my PIN
            </Button>
          )}
          {lead && p.id !== me && !p.retiredAt && (
            <Button look="quiet" aria-label={`New PIN for ${p.name}`} onClick={() => setPinOf(p)}>
              New PIN
            </Button>
          )}
          {lead && p.retiredAt && p.initials !== "–" && (
            <Button
              look="quiet"
              aria-label={`Erase the name of ${p.name}`}
              onClick={() => setErasing(p)}
            >
              Erase name
            </Button>
          )}
          {lead && (
            <Button look="quiet" aria-label={`Edit ${p.name}`} onClick={() => setEditing(p)}>
              Edit
            </Button>
          )}
        </span>
      ),
    },
  ];
  return (
    <main className="mx-auto w-full max-w-[1240px] flex-1 px-3 py-4 lg:px-6">
      <div className="flex flex-wrap items-center justify-between gap-4">
        <h1 className="text-4xl font-semibold">People</h1>
        {lead && (
          <Button look="act" size="large" onClick={() => setEditing("new")}>
            Enter somebody
          </Button>
        )}
      </div>
      <p className="text-base text-soft">
        {lead
          ? "Names and initials stand on slips and records. Who left keeps their lines and can no longer sign in."
          : "The lead enters people and gives PINs. Your own PIN you may change yourself."}
      </p>
      <ListTable id="people" label="People" columns={columns} rows={people} keyOf={(p) => p.id} />
      <PersonDialog
        editing={editing}
        onClose={() => setEditing(null)}
        onDone={done}
        send={(person, pin, gone) =>
          editing === "new" ? enter(person, pin) : write(editing!.id, person, gone)
        }
      />
      <Dialog
        open={erasing !== null}
        onClose={() => setErasing(null)}
        title={`Erase the name of ${erasing?.name ?? ""}`}
      >
        {erasing && (
          <EraseName
            onDone={() => {
              setErasing(null);
              done();
            }}
            send={() => erase(erasing.id)}
          />
        )}
      </Dialog>
      <PinDialog
        name={pinOf && (pinOf.id === me ? null : pinOf.name)}
        open={pinOf !== null}
        onClose={() => setPinOf(null)}
        onDone={done}
        send={(old, pin) => (pinOf!.id === me ? ownPin(old, pin) : newPin(pinOf!.id, pin))}
      />
    </main>
  );
}

/** Asks once more before a name is gone from every line. */
function EraseName({ onDone, send }: { onDone: () => void; send: () => Answer }) {
  const { message, busy, send: go } = useSend(onDone);
  return (
    <div className="flex flex-col gap-3">
      <p className="text-lg">
        The name and initials go from every line of every log, for good. The lines stay, and the
        logs stay unbroken; papers that name the person are made anew.
      </p>
      {message && (
        <p role="alert" className="text-lg text-stop">
          {message}
        </p>
      )}
      <Button look="stop" size="large" disabled={busy} onClick={() => go(send())}>
        Erase it
      </Button>
    </div>
  );
}
