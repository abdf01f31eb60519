"use client";

import { useEffect, useRef } from "react";
import type { BuildView, Edit, SaveAnswer, Sheet, SheetChanges } from "@/core/sheet";
import type { Problem } from "@/core/result";
import { useDraft } from "../draft/use-draft";
import { useFeed, type Change } from "../frame/feed";

type Plain = Promise<{ ok: true; value: string } | { ok: false; problems: Problem[] }>;

export interface BuildActions {
  save(id: string, version: number, edits: Edit[]): Promise<SaveAnswer>;
  /** The sheet as it stands now. */
  look(id: string): Promise<SaveAnswer>;
  waive(id: string, version: number, key: string, reason: string): Promise<SaveAnswer>;
  agree(id: string, version: number, drive: string, typed: string): Promise<SaveAnswer>;
  /** Takes back the save that made this version, with everything that it brought along. */
  undo(id: string, version: number): Promise<SaveAnswer>;
  issue(id: string, version: number): Plain;
  start(id: string, version: number): Plain;
}

/** Documents that a sheet is judged by. */
const JUDGED_BY = new Set(["build", "machine", "site", "image", "profile", "drive", "note"]);
/** What comes together is looked at together. */
const TOGETHER = 450;

const LENS = {
  document: (view: BuildView) => view.build.sheet,
  version: (view: BuildView) => view.build.version,
};

/** A sheet that saves by itself, and follows what others write. */
export function useSheet(initial: BuildView, actions: BuildActions) {
  const { id } = initial.build;
  const own = useDraft(initial, LENS, {
    save: (version, edits) => actions.save(id, version, edits),
    takeBack: (version) => actions.undo(id, version),
  });
  const { version, isQuiet, hear } = own;

  const soon = useRef<ReturnType<typeof setTimeout> | null>(null);
  useEffect(() => () => clearTimeout(soon.current ?? undefined), []);
  useFeed({
    // What another hand wrote, here or elsewhere, may change what this sheet says; what is typed here waits for no one.
    changes: (changes) => {
      const known = (c: Change): boolean => c.kind === "build" && c.id === id && c.version <= version;
      if (!isQuiet || changes?.every((c) => !JUDGED_BY.has(c.kind) || known(c))) return;
      clearTimeout(soon.current ?? undefined);
      soon.current = setTimeout(async () => {
        const answer = await actions.look(id).catch(() => null);
        if (answer?.ok) hear(answer.view);
      }, TOGETHER);
    },
  });

  return {
    ...own,
    view: own.draft.view,
    sheet: own.document as Sheet,
    problems: own.draft.problems,
    clash: own.draft.clash,
    edit: (changes: SheetChanges) => own.type(changes),
  };
}

export type SheetState = ReturnType<typeof useSheet>;
