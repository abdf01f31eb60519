"use client";

import { useEffect, useMemo, useRef, useState } from "react";
import type { Answer } from "@/contract";
import { withValueAt } from "@/core/document";
import type { BuildView, Confirmed, Edit, Judged, SaveAnswer, Sheet, SheetChanges } from "@/core/sheet";
import { useDraft } from "../draft/use-draft";
import { useFeed, type Change } from "../frame/feed";
import { useJudge } from "./use-judge";

type Plain = Promise<Answer<string>>;

export interface BuildActions {
  /** With the verdict of this page's own judge, if it has one: where the server's is the same it only says so. */
  save(
    id: string,
    version: number,
    edits: Edit[],
    verdict: string | null,
  ): Promise<SaveAnswer | { ok: true; confirmed: Confirmed }>;
  /** The sheet as it stands now. */
  look(id: string): Promise<SaveAnswer>;
  /** Takes the image of the sheet to be of a family. */
  like(id: string, family: string): Promise<SaveAnswer>;
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

const withEdits = (sheet: Sheet, edits: readonly Edit[]): Sheet =>
  edits.reduce<unknown>((s, e) => withValueAt(s, e.path, e.after) ?? s, sheet) as Sheet;

/** A sheet that saves by itself, is judged while it is typed in, and follows what others write. */
export function useSheet(initial: BuildView, actions: BuildActions) {
  const { id } = initial.build;
  const now = useRef<{ view: BuildView; judge: ReturnType<typeof useJudge>["judge"] } | null>(null);
  const own = useDraft(initial, LENS, {
    async save(version, edits) {
      const saved = now.current?.view ?? initial;
      const sheet = withEdits(saved.build.sheet, edits);
      const mine = await now.current?.judge(sheet);
      const answer = await actions.save(id, version, edits, mine?.verdict ?? null);
      if (!answer.ok || "view" in answer) return answer;
      const { build, ...addresses } = answer.confirmed;
      return { ok: true, view: { ...saved, ...addresses, ...mine?.judged, build: { ...build, sheet } } };
    },
    takeBack: (version) => actions.undo(id, version),
  });
  const { version, isQuiet, hear } = own;
  const { view } = own.draft;
  // Back in the history the page comes as it was left, and then again as it stands.
  useEffect(() => hear(initial), [initial, hear]);
  const { judge, renew } = useJudge(id, view.build.sheet);
  useEffect(() => {
    now.current = { view, judge };
  });

  const soon = useRef<ReturnType<typeof setTimeout> | null>(null);
  useEffect(() => () => clearTimeout(soon.current ?? undefined), []);
  useFeed({
    // What another hand wrote, here or elsewhere, may change what this sheet says; what is typed here waits for no one.
    changes: (changes) => {
      // The own save may be heard of before it is answered.
      const last = own.draft.sent === null ? version : version + 1;
      const known = (c: Change): boolean => c.kind === "build" && c.id === id && c.version <= last;
      if (changes?.every((c) => !JUDGED_BY.has(c.kind) || known(c))) return;
      renew();
      if (!isQuiet) return;
      clearTimeout(soon.current ?? undefined);
      soon.current = setTimeout(async () => {
        const answer = await actions.look(id).catch(() => null);
        if (answer?.ok) hear(answer.view);
      }, TOGETHER);
    },
  });

  const sheet = own.document as Sheet;
  const typed = useJudgedNow(sheet, view.build, judge);
  return {
    ...own,
    view: useMemo(() => (typed ? { ...view, ...typed } : view), [view, typed]),
    sheet,
    problems: own.draft.problems,
    clash: own.draft.clash,
    edit: own.type as (changes: SheetChanges) => void,
  };
}

/** What follows from a sheet that is not saved yet, as soon as it is known; null for one that is. */
function useJudgedNow(
  sheet: Sheet,
  saved: BuildView["build"],
  judge: (sheet: Sheet) => Promise<{ judged: Judged } | null>,
): Judged | null {
  const [last, setLast] = useState<{ version: number; judged: Judged } | null>(null);
  const isSaved = sheet === saved.sheet;
  const text = isSaved ? null : JSON.stringify(sheet);
  const { version } = saved;
  useEffect(() => {
    if (text === null) return;
    let isLast = true;
    void judge(JSON.parse(text) as Sheet).then((verdict) => {
      if (isLast) setLast(verdict && { version, judged: verdict.judged });
    });
    return () => {
      isLast = false;
    };
  }, [text, version, judge]);
  // Between two keys the last word stands, so that the margin does not flicker back to what was saved.
  return !isSaved && last?.version === version ? last.judged : null;
}

export type SheetState = ReturnType<typeof useSheet>;
