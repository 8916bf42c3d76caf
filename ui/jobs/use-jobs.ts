import { keepPreviousData, useQuery } from "@tanstack/react-query";
import type { JobState, JobTicket } from "@/core/job";
import type { JobOrder } from "@/core/job/list";
import { useRested } from "../primitives/use-rested";
import { waitingByJob } from "../outbox/storage";
import { shopQueries } from "../shop-queries";

/** One page of jobs as the shop gives it. */
export type JobsPage = {
  tickets: Omit<JobTicket, "on">[];
  counts: Partial<Record<JobState, number>>;
  on: Record<string, { name: string; initials: string }[]>;
  stamp: number;
};

const REFRESH_MS = 8000;

async function ask(params: Record<string, string | number>): Promise<JobsPage> {
  const query = new URLSearchParams(Object.entries(params).map(([k, v]) => [k, String(v)]));
  const response = await fetch(`/api/jobs?${query}`, { cache: "no-store" });
  if (!response.ok) throw new Error(`The shop answers ${response.status}.`);
  return (await response.json()) as JobsPage;
}

/** Puts changed tickets in their places: newest work first, those that left the state are gone. */
function mergeTickets(
  page: JobsPage,
  changed: JobsPage,
  state: JobState | null,
  limit: number,
): JobsPage {
  const fresh = new Map(changed.tickets.map((t) => [t.id, t]));
  const tickets = [...changed.tickets, ...page.tickets.filter((t) => !fresh.has(t.id))]
    .filter((t) => state === null || t.state === state)
    .sort((a, b) => (a.last.at < b.last.at ? 1 : -1))
    .slice(0, Math.max(limit, page.tickets.length));
  return { ...changed, tickets };
}

/**
 * The jobs that fit words and state. While nothing is looked for, only what changed is asked for
 * again.
 */
export function useJobs(
  first: JobsPage,
  text: string,
  state: JobState | null,
  order: JobOrder,
  limit: number,
) {
  const find = useRested(text.trim());
  const key = ["jobs", find, state, order, limit];
  const plain = find === "" && state === null && order === "work" && limit === 60;
  const query = useQuery(
    {
      queryKey: key,
      queryFn: async () => {
        const before = shopQueries().getQueryData<JobsPage>(key);
        if (!before || find !== "" || order !== "work")
          return ask({ find, state: state ?? "", order, limit });
        return mergeTickets(before, await ask({ since: before.stamp }), state, limit);
      },
      ...(plain && { initialData: first }),
      placeholderData: keepPreviousData,
      refetchInterval: REFRESH_MS,
    },
    shopQueries(),
  );
  return { page: query.data ?? first, silent: query.isError, settling: query.isPlaceholderData };
}

/** How many lines wait on this tablet, by job. */
export function useWaiting(): Map<string, number> {
  const query = useQuery(
    {
      queryKey: ["waiting"],
      queryFn: waitingByJob,
      refetchInterval: REFRESH_MS,
    },
    shopQueries(),
  );
  return query.data ?? new Map();
}
