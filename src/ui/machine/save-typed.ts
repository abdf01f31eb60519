"use client";

import { useRouter } from "next/navigation";
import { useState } from "react";
import type { Typed } from "@/core/machine";
import type { Problem } from "@/core/result";

export type SaveTyped = (
  part: Partial<Typed>,
) => Promise<{ ok: true; value: number } | { ok: false; problems: Problem[] }>;

/** Saving a part of what is typed: problems shown, the page renewed when it went well. */
export function useSave(save: SaveTyped): {
  problems: Problem[];
  keep: (part: Partial<Typed>) => Promise<boolean>;
} {
  const router = useRouter();
  const [problems, setProblems] = useState<Problem[]>([]);
  const keep = async (part: Partial<Typed>): Promise<boolean> => {
    const answer = await save(part);
    setProblems(answer.ok ? [] : answer.problems);
    if (answer.ok) router.refresh();
    return answer.ok;
  };
  return { problems, keep };
}
