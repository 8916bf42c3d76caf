"use client";

import Link from "next/link";
import { useEffect, useRef, useState, useTransition, type ComponentProps } from "react";
import { Toggles } from "../settings";
import { Button } from "../primitives/button";
import { OpenShop } from "../people/open-shop";
import { FloorPicture } from "./floor-picture";

type Someone = { id: string; name: string; initials: string; role: string };

/** Who is at this tablet: pick a name, type the PIN on large keys or a keyboard. */
export function SignIn({
  people,
  chosen,
  demo,
  signIn,
  openShop,
}: {
  people: Someone[];
  chosen: string | null;
  demo: boolean;
  signIn: (who: string, pin: string) => Promise<{ message: string }>;
  openShop: ComponentProps<typeof OpenShop>["open"];
}) {
  const [who, setWho] = useState(people.find((p) => p.id === chosen)?.id ?? null);
  const [pin, setPin] = useState("");
  const [message, setMessage] = useState<string | null>(null);
  const [busy, start] = useTransition();
  const input = useRef<HTMLInputElement>(null);

  useEffect(() => {
    if (who && window.matchMedia("(pointer: fine)").matches) input.current?.focus();
  }, [who]);

  const submit = (): void => {
    if (!who || busy) return;
    start(async () => {
      const answer = await signIn(who, pin);
      setPin("");
      setMessage(answer.message);
      input.current?.focus();
    });
  };
  const press = (key: string): void => {
    setMessage(null);
    setPin((p) => (key === "←" ? p.slice(0, -1) : (p + key).slice(0, 12)));
  };

  return (
    <main className="flex min-h-dvh flex-col lg:flex-row">
      <section className="flex flex-col justify-between bg-wash p-6 lg:w-[560px] lg:p-10">
        <div>
          <h1 className="text-5xl font-semibold tracking-tight">Iridel</h1>
          <p className="mt-2 max-w-[30ch] text-xl leading-snug text-soft">
            Sets out, proves and records the recalibration of a vehicle’s cameras.
          </p>
        </div>
        <FloorPicture className="my-6 hidden w-full lg:block" />
        <p className="hidden max-w-[52ch] text-base text-soft lg:block">
          The vehicle maker’s current service information decides. Iridel measures, reckons and
          records; it does not replace that information or the person responsible.
        </p>
      </section>
      <section className="flex flex-1 flex-col p-6 lg:p-10">
        <div className="flex justify-end">
          <Toggles />
        </div>
        {people.length === 0 ? (
          <div className="mx-auto flex w-full max-w-[600px] flex-1 flex-col justify-center">
            <OpenShop open={openShop} />
          </div>
        ) : (
          <div className="mx-auto flex w-full max-w-[600px] flex-1 flex-col justify-center gap-6">
            <fieldset>
              <legend className="mb-3 text-2xl font-semibold">Who is at this tablet?</legend>
              <div className="grid gap-2 sm:grid-cols-2">
                {people.map((p) => (
                  <button
                    key={p.id}
                    type="button"
                    aria-pressed={who === p.id}
                    onClick={() => {
                      setWho(p.id);
                      setMessage(null);
                    }}
                    className={`flex min-h-16 items-center gap-3 rounded-md border-2 px-4 text-left ${who === p.id ? "border-act bg-sheet" : "border-hairline bg-sheet hover:border-ink"}`}
                  >
                    <span
                      className={`figure inline-flex h-10 w-12 items-center justify-center rounded-md text-lg font-semibold ${who === p.id ? "bg-act text-on-act" : "bg-wash"}`}
                    >
                      {p.initials}
                    </span>
                    <span>
                      <span className="block text-lg font-semibold leading-tight">{p.name}</span>
                      <span className="text-sm text-soft">{p.role}</span>
                    </span>
                  </button>
                ))}
              </div>
            </fieldset>
            <form
              className={`grid gap-4 sm:grid-cols-[1fr_auto] ${who ? "" : "opacity-60"}`}
              onSubmit={(e) => {
                e.preventDefault();
                submit();
              }}
            >
              <div className="flex flex-col">
                <label htmlFor="pin" className="text-sm font-semibold text-soft">
                  PIN
                </label>
                <input
                  id="pin"
                  ref={input}
                  type="password"
                  inputMode="numeric"
                  autoComplete="off"
                  disabled={!who}
                  value={pin}
                  onChange={(e) => {
                    setMessage(null);
                    setPin(e.target.value.replace(/\D/g, "").slice(0, 12));
                  }}
                  className="figure min-h-16 w-full border-b-4 border-act bg-transparent px-2 text-5xl tracking-[0.2em] outline-none"
                />
                <p role="alert" className="mt-2 min-h-12 text-base text-stop">
                  {message}
                </p>
                <Button
                  type="submit"
                  look="act"
                  size="large"
                  disabled={!who || pin.length < 4 || busy}
                  className="mt-auto"
                >
                  {busy ? "Checking" : "Sign in"}
                </Button>
              </div>
              <div className="hidden grid-cols-3 gap-2 sm:grid" role="group" aria-label="PIN keys">
                {["1", "2", "3", "4", "5", "6", "7", "8", "9", "", "0", "←"].map((key, i) =>
                  key === "" ? (
                    <span key={i} />
                  ) : (
                    <button
                      key={i}
                      type="button"
                      disabled={!who}
                      aria-label={key === "←" ? "Delete" : key}
                      onClick={() => press(key)}
                      className="figure min-h-16 min-w-20 rounded-md border border-hairline bg-sheet text-3xl font-semibold hover:bg-wash"
                    >
                      {key}
                    </button>
                  ),
                )}
              </div>
            </form>
            {demo && (
              <Link
                href="/demo"
                className="flex min-h-12 items-center font-semibold text-act underline underline-offset-4"
              >
                Demo shop: people and PINs
              </Link>
            )}
          </div>
        )}
      </section>
    </main>
  );
}
