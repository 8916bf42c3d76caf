import type { Target } from "@/core/sheet";

/** What a target on a stand is called, and what it hangs on: a reflector's stand has a short bar. */
export const thingOf = ({
  object,
}: Pick<Target, "object">): { thing: "board" | "reflector"; beam: "beam" | "bar" } =>
  object.is === "reflector"
    ? { thing: "reflector", beam: "bar" }
    : { thing: "board", beam: "beam" };
