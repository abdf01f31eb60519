import { diffArrays } from "diff";
import type { AnswerLine } from "./write";

/** Lines of two files side by side: the same, or one for the other; null where a file has no line for it. */
export interface LinePair {
  same: boolean;
  here: AnswerLine | null;
  there: AnswerLine | null;
}

const text = (line: AnswerLine): string => line.text;

/** Two answer files line by line, by the shortest list of changes; a changed line stands beside the one that it was. */
export function linePairs(here: readonly AnswerLine[], there: readonly AnswerLine[]): LinePair[] {
  const changes = diffArrays([...here], [...there], { comparator: (a, b) => text(a) === text(b) });
  const pairs: LinePair[] = [];
  let at = 0;
  let gone: AnswerLine[] = [];
  const flush = (come: readonly AnswerLine[]): void => {
    for (let i = 0; i < Math.max(gone.length, come.length); i += 1)
      pairs.push({ same: false, here: gone[i] ?? null, there: come[i] ?? null });
    gone = [];
  };
  for (const { added, removed, value } of changes) {
    if (added) flush(value);
    else if (removed) {
      gone = value;
      at += value.length;
    } else {
      flush([]);
      // The field that a line comes from is that of the file here.
      value.forEach((line) => pairs.push({ same: true, here: here[at++] ?? line, there: line }));
    }
  }
  flush([]);
  return pairs;
}

/** Pairs that differ, each with so many lines around it that one sees where it stands; null stands for what is left out. */
export function shortened(pairs: readonly LinePair[], around = 1): (LinePair | null)[] {
  const near = (i: number): boolean =>
    pairs.slice(Math.max(0, i - around), i + around + 1).some(({ same }) => !same);
  const shown: (LinePair | null)[] = [];
  pairs.forEach((pair, i) => {
    if (near(i)) shown.push(pair);
    else if (shown.at(-1) !== null) shown.push(null);
  });
  return shown;
}
