"use client";

import { useEffect, useSyncExternalStore } from "react";

/** Fields of this page whose text cannot be read: what stands in them is not saved, and must not be taken for it. */
let unread = 0;
const heard = new Set<() => void>();

function count(by: 1 | -1): void {
  unread += by;
  for (const tell of heard) tell();
}

/** Counts a field while its text cannot be read. */
export function useCountedUnread(isUnread: boolean): void {
  useEffect(() => {
    if (!isUnread) return;
    count(1);
    return () => count(-1);
  }, [isUnread]);
}

const subscribe = (tell: () => void) => {
  heard.add(tell);
  return () => void heard.delete(tell);
};

/** How many fields of this page cannot be read. */
export const useUnread = (): number =>
  useSyncExternalStore(
    subscribe,
    () => unread,
    () => 0,
  );
