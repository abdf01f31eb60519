"use client";

import { useRouter } from "next/navigation";
import { useEffect } from "react";
import type { Edit, WrittenAnswer, WrittenView } from "@/core/document";
import { useFeed, type Change } from "../frame/feed";
import { useDraft } from "./use-draft";

/** How a form reaches the document that it writes. */
export interface WrittenActions<P> {
  save(version: number, edits: Edit[]): Promise<WrittenAnswer<P>>;
  /** Takes back the save that made a version. */
  takeBack(version: number): Promise<WrittenAnswer<P>>;
}

/**
 * The part of a document that people write, saved by itself. `given` is what the page says of it; when it is written from
 * elsewhere the page is asked again, and what follows from a save is shown by the page as well.
 */
export function useWritten<P>(kind: string, id: string, given: WrittenView<P>, actions: WrittenActions<P>) {
  const router = useRouter();
  const draft = useDraft(
    given,
    { document: (view: WrittenView<P>) => view.document, version: (view: WrittenView<P>) => view.version },
    actions,
  );
  const { hear } = draft;
  // A page that was asked again tells what stands now; while something is typed, that is not disturbed.
  useEffect(() => hear(given), [given, hear]);
  useFeed({
    changes: (changes) => {
      const isNews = (c: Change): boolean => c.kind === kind && c.id === id && c.version > draft.version;
      if (!changes || changes.some(isNews)) router.refresh();
    },
  });
  return { ...draft, document: draft.document as P };
}

export type WrittenDraft<P> = ReturnType<typeof useWritten<P>>;
