"use client";

import { useEffect, useState } from "react";
import type { FieldValues, UseFormReturn } from "react-hook-form";
import { newHistory, redone, typed, undone, type History } from "./history";

/**
 * Undo and redo of a form that keeps its own values until a button saves them. `begin` forgets what was before, as when the
 * form goes on from what another hand has written: taking that back is not for one's own undo.
 */
export function useFormHistory<V extends FieldValues>({ watch, reset, getValues }: UseFormReturn<V>) {
  const [history, setHistory] = useState<History<V>>(() => newHistory(structuredClone(getValues())));
  useEffect(() => {
    const typing = watch((values, { name, type }) => {
      const now = structuredClone(values) as V;
      setHistory((h) => typed(h, now, type === "change" ? (name ?? null) : null));
    });
    return () => typing.unsubscribe();
  }, [watch]);
  // The form itself takes its values from here, so it is given a copy of its own.
  const go = async (next: History<V>) => {
    setHistory(next);
    reset(structuredClone(next.now), { keepDefaultValues: true });
  };
  return {
    canUndo: history.past.length > 0,
    canRedo: history.future.length > 0,
    undo: () => go(undone(history)),
    redo: () => go(redone(history)),
    begin: () => setHistory(newHistory(structuredClone(getValues()))),
  };
}
