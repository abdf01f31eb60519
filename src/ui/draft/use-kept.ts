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

/** What was typed over `begun` (a value as text); null where that has changed since: it would undo what another hand has written. */
export function typedOver<T>(text: string | null, begun: string): { value: T } | null {
  const kept = valueOf<{ over?: string; value: T } | null>(text, null);
  return kept?.over === begun ? { value: kept.value } : null;
}

/**
 * A state of a page's form that lives through a reload and through other pages, in this tab, until it is set to what it began with.
 * Nothing that proves or is secret is kept by it: what a guard asks for is typed anew.
 */
export function useKept<T>(name: string, initial: T): [T, (value: T) => void] {
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
  const kept = typedOver<T>(text, begun);
  return [kept ? kept.value : initial, set];
}

/** What is kept outside a component's state, such as the values of a form that keeps its own. */
export const keptText = { read, write };
