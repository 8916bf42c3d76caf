import type { Draft, Problem } from "@/core/book";
import { asWriter, type Answer } from "../auth/as-writer";
import type { makeBook } from "./book";

/** What the pages of a book may ask; each is wrapped in a server action of its own. */
export const bookActions = <T>(book: ReturnType<typeof makeBook<T>>, idOf: (doc: T) => string) => ({
  begin: (): Promise<Answer<{ key: string }>> =>
    asWriter("write-drafts", (p) => ({ key: book.begin(p) })),
  newVersion: (id: string): Promise<Answer<{ key: string }>> =>
    asWriter("write-drafts", (p) => ({ key: book.draftFrom(String(id), p) })),
  copy: (id: string): Promise<Answer<{ key: string }>> =>
    asWriter("write-drafts", (p) => ({ key: book.copyFrom(String(id), p) })),
  takeFile: (text: string): Promise<Answer<{ key: string }>> =>
    asWriter("write-drafts", (p) => ({ key: book.importFile(String(text).slice(0, 500_000), p) })),
  keep: (
    key: string,
    doc: Draft,
    revision: number,
  ): Promise<Answer<{ problems: Problem[]; revision: number }>> =>
    asWriter("write-drafts", (p) => {
      const kept = book.saveDraft(String(key), doc, p, Number(revision));
      return { problems: kept.problems, revision: kept.revision };
    }),
  sign: (key: string): Promise<Answer<{ id: string }>> =>
    asWriter("write-drafts", (p) => ({ id: idOf(book.checkDraft(String(key), p)) })),
  drop: (key: string): Promise<Answer<object>> =>
    asWriter("write-drafts", () => {
      book.discardDraft(String(key));
      return {};
    }),
});
