"use client";

import { createContext, useContext, type ReactNode } from "react";
import type { WrittenView } from "@/core/document";
import { useWritten, type WrittenActions, type WrittenDraft } from "./use-written";
import { WrittenFoot } from "./written-foot";

interface Given<P> {
  id: string;
  given: WrittenView<P>;
  actions: WrittenActions<P>;
  children: ReactNode;
}

/** One draft for all the forms of a page that is made on the server, and its foot for the page's title block. */
export function writtenContext<P>(kind: string, names: Readonly<Record<string, string>>) {
  const Context = createContext<WrittenDraft<P> | null>(null);
  const use = (): WrittenDraft<P> => {
    const draft = useContext(Context);
    if (!draft) throw new Error(`a form of a ${kind} stands outside of its draft`);
    return draft;
  };
  return {
    use,
    Draft: ({ id, given, actions, children }: Given<P>) => (
      <Context value={useWritten(kind, id, given, actions)}>{children}</Context>
    ),
    Foot: ({ timeZone }: { timeZone: string }) => (
      <WrittenFoot what={kind} draft={use()} names={names} timeZone={timeZone} />
    ),
  };
}
