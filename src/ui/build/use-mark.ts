"use client";

import { useEffect, useSyncExternalStore } from "react";
import type { SheetMark } from "@/core/sheet";
import { useFeed } from "../frame/feed";

/** What rows in sight have asked for, by sheet; null while it is on its way. */
const known = new Map<string, SheetMark | null>();
const heard = new Set<() => void>();
let wanted = new Set<string>();
let timer: ReturnType<typeof setTimeout> | null = null;

const tell = (): void => heard.forEach((one) => one());
const subscribe = (one: () => void) => {
  heard.add(one);
  return () => void heard.delete(one);
};

/** Rows that come into sight together are asked for together. */
const TOGETHER = 60;
const MOST = 60;

async function ask(): Promise<void> {
  timer = null;
  const ids = [...wanted].slice(0, MOST);
  wanted = new Set([...wanted].slice(MOST));
  const answer = await fetch(`/api/v1/marks?ids=${ids.join()}`).catch(() => null);
  const marks = answer?.ok ? ((await answer.json()) as Record<string, SheetMark>) : {};
  for (const id of ids)
    if (marks[id]) known.set(id, marks[id]);
    else known.delete(id);
  tell();
  if (wanted.size > 0) timer ??= setTimeout(() => void ask(), TOGETHER);
}

const want = (id: string): void => {
  wanted.add(id);
  timer ??= setTimeout(() => void ask(), TOGETHER);
};

/** Rows that are drawn now. */
const inSight = new Set<string>();

/** What stands in the way of a sheet, once it is known: it is asked for when its row comes into sight. */
export function useMark(id: string): SheetMark | null {
  useEffect(() => {
    inSight.add(id);
    if (!known.has(id)) {
      known.set(id, null);
      want(id);
    }
    return () => void inSight.delete(id);
  }, [id]);
  return useSyncExternalStore(
    subscribe,
    () => known.get(id) ?? null,
    () => null,
  );
}

/**
 * What others write may change any mark: those in sight are asked for again, the others forgotten. A list that is left
 * forgets all, since it does not hear what is written meanwhile.
 */
export function useFreshMarks(): void {
  useFeed({
    changes: () => {
      for (const id of known.keys())
        if (inSight.has(id)) want(id);
        else known.delete(id);
    },
  });
  useEffect(() => () => known.clear(), []);
}
