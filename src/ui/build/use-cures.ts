import { useEffect, useMemo, useState } from "react";
import type { BuildView, SheetChanges } from "@/core/sheet";
import type { NoteActs } from "../findings/note";
import type { curesOf } from "./cures";

type Offer = Pick<NoteActs, "cureOf" | "onCure">;
type CuresOf = typeof curesOf;

/** The cures of a sheet's findings. They come after its first script: a sheet is read before anything is cured on it. */
export function useCures(
  view: BuildView,
  names: Readonly<Record<string, string>>,
  edit: (changes: SheetChanges) => void,
): Offer {
  const [loaded, setLoaded] = useState<{ curesOf: CuresOf } | null>(null);
  useEffect(() => {
    let isHere = true;
    void import("./cures").then((cures) => isHere && setLoaded({ curesOf: cures.curesOf }));
    return () => {
      isHere = false;
    };
  }, []);
  return useMemo(() => loaded?.curesOf(view, names, edit) ?? {}, [loaded, view, names, edit]);
}
