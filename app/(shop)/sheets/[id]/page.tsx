import type { Metadata } from "next";
import { notFound } from "next/navigation";
import { requirePerson } from "@/server/auth/guard";
import { currentPerson } from "@/server/auth/session";
import { copySheet, newSheetVersion } from "@/server/sheets/actions";
import { sheetVersions } from "@/server/sheets/store";
import { SheetPage } from "@/ui/sheets/sheet-page";

type Context = { params: Promise<{ id: string }>; searchParams: Promise<{ version?: string }> };

export async function generateMetadata({ params }: Context): Promise<Metadata> {
  // A title tells nothing to who is not signed in.
  const me = await currentPerson();
  return { title: (me && sheetVersions((await params).id)[0]?.title) || "Sheet" };
}

export default async function OneSheetPage({ params, searchParams }: Context) {
  const me = await requirePerson();
  const versions = sheetVersions((await params).id);
  const wanted = Number((await searchParams).version ?? versions[0]?.version);
  const shown = versions.find((s) => s.version === wanted);
  if (!shown) notFound();
  const previous = versions.find((s) => s.version < shown.version) ?? null;
  return (
    <SheetPage
      doc={shown}
      previous={previous}
      versions={versions.map((s) => s.version)}
      writes={me.role !== "viewer"}
      newVersion={newSheetVersion}
      copy={copySheet}
    />
  );
}
