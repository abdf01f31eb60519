"use client";

import { useCallback, useEffect, useRef, useState } from "react";
import type { BuildView, Edit, SaveAnswer, Sheet, SheetChanges } from "@/core/sheet";
import type { Problem } from "@/core/result";
import { useFeed, type Change } from "../frame/feed";

export interface BuildActions {
  save(id: string, version: number, edits: Edit[]): Promise<SaveAnswer>;
  /** The sheet as it stands now. */
  look(id: string): Promise<SaveAnswer>;
  waive(id: string, version: number, key: string, reason: string): Promise<SaveAnswer>;
  agree(id: string, version: number, drive: string, typed: string): Promise<SaveAnswer>;
  /** Takes back the save that made this version, with everything that it brought along. */
  undo(id: string, version: number): Promise<SaveAnswer>;
  issue(
    id: string,
    version: number,
  ): Promise<{ ok: true; value: string } | { ok: false; problems: Problem[] }>;
  start(
    id: string,
    version: number,
  ): Promise<{ ok: true; value: string } | { ok: false; problems: Problem[] }>;
}

type Bag = Record<string, unknown>;

/** A copy of the sheet with one value replaced; only the objects on the way are copied. */
function withValue<T>(sheet: T, path: string, value: unknown): T {
  const [key = "", ...rest] = path.split(".");
  const bag = sheet as Bag;
  return { ...bag, [key]: rest.length === 0 ? value : withValue(bag[key], rest.join("."), value) } as T;
}

const valueIn = (sheet: unknown, path: string): unknown =>
  path.split(".").reduce<unknown>((v, k) => (v as Bag | undefined)?.[k], sheet);
const same = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b);

const PAUSE = 450;
const RETRY = 3000;
/** Documents that a sheet is judged by. */
const JUDGED_BY = new Set(["build", "machine", "site", "image", "profile", "drive", "note"]);

export interface SheetState {
  view: BuildView;
  /** The sheet with what was typed and is not saved yet. */
  sheet: Sheet;
  status: "saved" | "saving" | "not saved";
  problems: Problem[];
  stale: { view: BuildView; by: string; at: string; mine: Edit[] } | null;
  edit(changes: SheetChanges): void;
  undo(): Promise<void>;
  canUndo: boolean;
  /** Ends a clash: the edits that stay are made again on the other version. */
  settle(keep: Edit[]): void;
  adopt(answer: SaveAnswer): void;
}

/**
 * A sheet that saves by itself. What is typed is kept as edits over the last version that the server confirmed; a
 * clash, an error or a lost server leaves them where they are.
 */
export function useSheet(initial: BuildView, actions: BuildActions): SheetState {
  const [view, setView] = useState(initial);
  const [pending, setPending] = useState<Edit[]>([]);
  const [busy, setBusy] = useState(false);
  const [failed, setFailed] = useState(0);
  const [problems, setProblems] = useState<Problem[]>([]);
  const [stale, setStale] = useState<SheetState["stale"]>(null);
  /** Versions that this window's own saves made, the last one last. */
  const [done, setDone] = useState<number[]>([]);

  const sheet = pending.reduce((s, e) => withValue(s, e.path, e.after), view.build.sheet);

  const push = useCallback((edits: Edit[]) => {
    setProblems([]);
    setPending((before) => {
      const kept = before.filter((b) => !edits.some((e) => e.path === b.path));
      const joined = edits.map((e) => ({
        ...e,
        before: before.find((b) => b.path === e.path)?.before ?? e.before,
      }));
      return [...kept, ...joined];
    });
  }, []);

  const edit = useCallback(
    (changes: SheetChanges) => {
      const edits = Object.entries(changes)
        .map(([path, after]) => ({ path, before: valueIn(sheet, path), after }))
        .filter((e) => !same(e.before, e.after));
      if (edits.length > 0) push(edits);
    },
    [sheet, push],
  );

  useEffect(() => {
    if (pending.length === 0 || busy || stale || problems.length > 0) return;
    const send = async () => {
      setBusy(true);
      const sent = pending;
      const answer = await actions.save(view.build.id, view.build.version, sent).catch(() => null);
      setBusy(false);
      if (!answer) return setFailed((n) => n + 1);
      setFailed(0);
      if (answer.ok) {
        setView(answer.view);
        setDone((all) => [...all.slice(-49), answer.view.build.version]);
        setPending((now) =>
          now.filter((e) => !sent.some((s) => s.path === e.path && same(s.after, e.after))),
        );
      } else if (answer.stale) setStale({ ...answer.stale, mine: sent });
      else setProblems(answer.problems);
    };
    const timer = setTimeout(send, failed > 0 ? RETRY : PAUSE);
    return () => clearTimeout(timer);
  }, [pending, busy, stale, problems, failed, actions, view]);

  useEffect(() => {
    if (pending.length === 0) return;
    const warn = (e: BeforeUnloadEvent) => e.preventDefault();
    addEventListener("beforeunload", warn);
    return () => removeEventListener("beforeunload", warn);
  }, [pending.length]);

  const undo = useCallback(async () => {
    // What was typed and is not saved yet is the last change; it goes first.
    if (pending.length > 0 && !busy) return setPending([]);
    const last = done.at(-1);
    if (last === undefined || busy) return;
    setBusy(true);
    const answer = await actions.undo(view.build.id, last).catch(() => null);
    setBusy(false);
    if (!answer) return;
    setDone((all) => all.filter((v) => v !== last));
    if (answer.ok) setView(answer.view);
    else setProblems(answer.problems);
  }, [done, busy, pending.length, actions, view.build.id]);

  const soon = useRef<ReturnType<typeof setTimeout> | null>(null);
  const quiet = pending.length === 0 && !busy && !stale;
  const look = async () => {
    const answer = await actions.look(view.build.id).catch(() => null);
    if (answer?.ok) setView((old) => (answer.view.build.version >= old.build.version ? answer.view : old));
  };
  useFeed({
    // What another hand wrote, here or elsewhere, may change what this sheet says; what is typed here waits for no one.
    changes: (changes) => {
      const own = (c: Change): boolean => c.kind === "build" && c.id === view.build.id;
      const news = changes?.some(
        (c) => JUDGED_BY.has(c.kind) && !(own(c) && c.version <= view.build.version),
      );
      if (!quiet || news === false) return;
      if (soon.current) clearTimeout(soon.current);
      soon.current = setTimeout(() => void look(), PAUSE);
    },
  });

  return {
    view,
    sheet,
    status:
      pending.length === 0 ? "saved" : failed > 0 || problems.length > 0 || stale ? "not saved" : "saving",
    problems,
    stale,
    edit,
    undo,
    canUndo: done.length > 0 || pending.length > 0,
    settle(keep) {
      if (!stale) return;
      setView(stale.view);
      setPending(keep.map((e) => ({ ...e, before: valueIn(stale.view.build.sheet, e.path) })));
      setStale(null);
    },
    adopt(answer) {
      if (answer.ok) setView(answer.view);
      else if (answer.stale) setStale({ ...answer.stale, mine: [] });
      else setProblems(answer.problems);
    },
  };
}
