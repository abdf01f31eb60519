"use client";

import { usePathname } from "next/navigation";
import { useCallback, useSyncExternalStore } from "react";

const heard = new Set<() => void>();
/** What the browser has no room for is kept for as long as the page lives. */
const beside = new Map<string, string>();
const PREFIX = "derrick_kept:";

const read = (key: string): string | null => beside.get(key) ?? sessionStorage.getItem(PREFIX + key);

function write(key: string, text: string | null): void {
  beside.delete(key);
  try {
    if (text === null) sessionStorage.removeItem(PREFIX + key);
    else sessionStorage.setItem(PREFIX + key, text);
  } catch {
    if (text !== null) beside.set(key, text);
  }
  for (const tell of heard) tell();
}

const subscribe = (tell: () => void) => {
  heard.add(tell);
  return () => void heard.delete(tell);
};

/** The value that a text of this browser's holds; `initial` where it holds none that can be read. */
export function valueOf<T>(text: string | null, initial: T): T {
  if (text === null) return initial;
  try {
    return JSON.parse(text) as T;
  } catch {
    return initial;
  }
}

/** What is kept of a state: what was typed over `begun` (the value that it began with, as text), or over another. */
export function keptOver<T>(text: string | null, begun: string): { own: T } | { other: T } | null {
  const kept = valueOf<{ over?: string; value: T } | null>(text, null);
  if (kept?.over === undefined) return null;
  return kept.over === begun ? { own: kept.value } : { other: kept.value };
}

/**
 * A state of a page's form that lives through a reload and through other pages, in this tab, until it is set to what it began with.
 * What was typed over another beginning is not put over this one: it is `other`, until it is set or dropped.
 * Nothing that proves or is secret is kept by it: what a guard asks for is typed anew.
 */
export function useKept<T>(
  name: string,
  initial: T,
): [value: T, set: (value: T) => void, other: { value: T } | null, drop: () => void] {
  const key = `${usePathname()} ${name}`;
  const text = useSyncExternalStore(
    subscribe,
    () => read(key),
    () => null,
  );
  const begun = JSON.stringify(initial);
  const set = useCallback(
    (value: T) => {
      const next = JSON.stringify(value);
      write(key, next === begun ? null : JSON.stringify({ over: begun, value }));
    },
    [key, begun],
  );
  const drop = useCallback(() => write(key, null), [key]);
  const kept = keptOver<T>(text, begun);
  const value = kept && "own" in kept ? kept.own : initial;
  return [value, set, kept && "other" in kept ? { value: kept.other } : null, drop];
}

/** What is kept outside a component's state, such as the values of a form that keeps its own. */
export const keptText = { read, write };
