"use client";

import { useEffect, useRef } from "react";

/** While `isOpen`, the browser asks before the page is left; `act` is done first, for what can still be saved. */
export function useLeaving(isOpen: boolean, act?: () => void): void {
  const latest = useRef(act);
  useEffect(() => {
    latest.current = act;
  });
  useEffect(() => {
    if (!isOpen) return;
    const ask = (e: BeforeUnloadEvent): void => {
      e.preventDefault();
      latest.current?.();
    };
    addEventListener("beforeunload", ask);
    return () => removeEventListener("beforeunload", ask);
  }, [isOpen]);
}
