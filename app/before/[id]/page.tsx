import type { Metadata } from "next";
import { notFound } from "next/navigation";
import { letterForKeeper } from "@/server/day/paper";
import { LetterPage } from "@/ui/day/letter";

export const metadata: Metadata = {
  title: "Before your vehicle comes",
  robots: { index: false, follow: false },
};

/** What is asked before a vehicle comes, for whoever has its link; no sign-in, nothing else of the shop. */
export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const letter = letterForKeeper((await params).id);
  if (!letter) notFound();
  return <LetterPage letter={letter} by="keeper" />;
}
