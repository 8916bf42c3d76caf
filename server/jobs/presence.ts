import type { Person } from "../auth/session";

type Who = { id: string; name: string; initials: string };

/** Who is not heard of for this long has left. */
const HERE_MS = 15_000;

/**
 * Who has which job open, and when their tablet last said so. It lives in memory: it is true for
 * seconds only, and a disk that is full must not keep anybody from reading.
 */
const here = ((
  globalThis as { iridelPresence?: Map<string, Map<string, Who & { at: number }>> }
).iridelPresence ??= new Map());

/** Notes that a person has a job open, and says who else has. */
export function seen(jobId: string, person: Person, now = Date.now()): Omit<Who, "id">[] {
  const on = here.get(jobId) ?? new Map<string, Who & { at: number }>();
  on.set(person.id, { id: person.id, name: person.name, initials: person.initials, at: now });
  here.set(jobId, on);
  return (peopleOn(now).get(jobId) ?? [])
    .filter((p) => p.id !== person.id)
    .map(({ name, initials }) => ({ name, initials }));
}

/** Who is on what, by job. */
export function peopleOn(now = Date.now()): Map<string, Who[]> {
  const on = new Map<string, Who[]>();
  for (const [jobId, people] of here) {
    for (const [id, p] of people) if (now - p.at > HERE_MS) people.delete(id);
    if (people.size === 0) here.delete(jobId);
    else
      on.set(
        jobId,
        [...people.values()].map(({ id, name, initials }) => ({ id, name, initials })),
      );
  }
  return on;
}
