import type { Metadata } from "next";
import { joinStand } from "@/server/stand/actions";
import { Join } from "@/ui/stand/join";

export const metadata: Metadata = { title: "Join", robots: { index: false } };

/**
 * A phone joins at the stand. Opening the link tells and uses nothing; pressing the button uses the
 * code up.
 */
export default async function JoinPage({ params }: { params: Promise<{ code: string }> }) {
  return <Join code={(await params).code} join={joinStand} />;
}
