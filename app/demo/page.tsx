import type { Metadata } from "next";
import Link from "next/link";
import { notFound } from "next/navigation";
import { config } from "@/server/config";
import { demoPins, listPeople } from "@/server/shop/store";

export const metadata: Metadata = { title: "Demo shop" };
export const dynamic = "force-dynamic";

const MAY: Record<string, string> = {
  lead: "Works on jobs and answers for the shop’s sheets.",
  technician: "Works on jobs.",
  viewer: "Looks at everything, changes nothing.",
};

/** The demo's people and PINs. This page does not exist in a real shop. */
export default function DemoPage() {
  if (!config.demo) notFound();
  const pins = demoPins();
  return (
    <main className="mx-auto max-w-3xl p-6 lg:p-10">
      <h1 className="text-4xl font-semibold">Demo shop</h1>
      <p className="mt-2 text-lg text-soft">
        Everything here is made up: the harbour town of Hollin Quay, its people, vehicles, figures
        and sheets. The bay, the instruments, the scan tool and the vehicles are simulated. Choose
        who you are.
      </p>
      <ul className="mt-6 flex flex-col gap-2">
        {listPeople().map((p) => (
          <li key={p.id}>
            <Link
              href={`/sign-in?who=${p.id}`}
              className="flex min-h-16 items-center gap-4 rounded-md border border-hairline bg-sheet px-4 hover:border-ink"
            >
              <span className="flex-1">
                <span className="block text-lg font-semibold leading-tight">
                  {p.name}, {p.role}
                </span>
                <span className="text-soft">{MAY[p.role]}</span>
              </span>
              <span className="text-soft">PIN</span>
              <span className="figure text-2xl font-semibold" data-pin={p.id}>
                {pins[p.id] ?? "–"}
              </span>
            </Link>
          </li>
        ))}
      </ul>
      <p className="mt-6 text-base text-soft">
        Good places to start: a job with a reading that does not fit, one whose board has to be
        moved, and one that the vehicle refused. All are on the jobs list. Or take in a vehicle of
        your own.
      </p>
    </main>
  );
}
