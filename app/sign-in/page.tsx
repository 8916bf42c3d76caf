import type { Metadata } from "next";
import { redirect } from "next/navigation";
import { signIn } from "@/server/auth/actions";
import { firstPerson } from "@/server/people/actions";
import { currentPerson } from "@/server/auth/session";
import { config } from "@/server/config";
import { listPeople } from "@/server/shop/store";
import { SignIn } from "@/ui/sign-in/sign-in";

export const metadata: Metadata = { title: "Sign in" };
export const dynamic = "force-dynamic";

export default async function SignInPage({
  searchParams,
}: {
  searchParams: Promise<{ who?: string }>;
}) {
  if (await currentPerson()) redirect("/");
  const people = listPeople().map(({ id, name, initials, role }) => ({ id, name, initials, role }));
  return (
    <SignIn
      openShop={firstPerson}
      people={people}
      chosen={(await searchParams).who ?? null}
      demo={config.demo}
      signIn={signIn}
    />
  );
}
