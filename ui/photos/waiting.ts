/**
 * Photos that have not reached the shop, kept on this tablet over a reload: local storage holds
 * text only.
 */
export type Waiting = { id: string; jobId: string; subject: string; file: Blob };

const STORE = "waiting";

const open = (): Promise<IDBDatabase> =>
  new Promise((done, failed) => {
    const request = indexedDB.open("iridel-photos", 1);
    request.onupgradeneeded = () => request.result.createObjectStore(STORE, { keyPath: "id" });
    request.onsuccess = () => done(request.result);
    request.onerror = () => failed(request.error ?? new Error("This tablet keeps no photos."));
  });

async function run<T>(
  mode: IDBTransactionMode,
  work: (store: IDBObjectStore) => IDBRequest<T>,
): Promise<T | undefined> {
  // A private window has no such store: the photo is then only held by the page.
  const database = await open().catch(() => null);
  if (!database) return undefined;
  return new Promise((done) => {
    const request = work(database.transaction(STORE, mode).objectStore(STORE));
    request.onsuccess = () => done(request.result);
    request.onerror = () => done(undefined);
  });
}

export const keepWaiting = async (photo: Waiting): Promise<void> =>
  void (await run("readwrite", (s) => s.put(photo)));
export const dropWaiting = async (id: string): Promise<void> =>
  void (await run("readwrite", (s) => s.delete(id)));

/** What waits for one place of one job, oldest first. */
export async function waitingFor(jobId: string, subject: string): Promise<Waiting[]> {
  const all = (await run("readonly", (s) => s.getAll() as IDBRequest<Waiting[]>)) ?? [];
  return all
    .filter((w) => w.jobId === jobId && w.subject === subject)
    .sort((a, b) => (a.id < b.id ? -1 : 1));
}
