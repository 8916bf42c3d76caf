import type { Metadata } from "next";
import { requirePerson } from "@/server/auth/guard";
import { enterPerson, eraseName, newPin, ownPin, writePerson } from "@/server/people/actions";
import { everybody } from "@/server/people/store";
import { People } from "@/ui/people/people";

export const metadata: Metadata = { title: "People" };

export default async function PeoplePage() {
  const me = await requirePerson();
  return (
    <People
      people={everybody()}
      me={me.id}
      lead={me.role === "lead"}
      enter={enterPerson}
      write={writePerson}
      newPin={newPin}
      ownPin={ownPin}
      erase={eraseName}
    />
  );
}
