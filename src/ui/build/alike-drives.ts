import { bayWords, type Drive } from "@/core/machine";

/** Drives of one set that all stay as they are: one line says it. */
export interface AlikeDrives {
  key: string;
  words: string;
  drives: Drive[];
}

/** Fewer than so many are as short one by one. */
const LEAST = 3;

/** "bay 0 to 4, bay 6", in the order in which they are given. */
function bayList(drives: readonly Drive[]): string {
  const runs: [first: string, last: string][] = [];
  for (const { bay } of drives) {
    const last = runs.at(-1);
    if (
      last &&
      bay !== null &&
      /^\d+$/.test(bay) &&
      /^\d+$/.test(last[1]) &&
      Number(bay) === Number(last[1]) + 1
    )
      last[1] = bay;
    else runs.push([bay ?? "no bay", bay ?? "no bay"]);
  }
  return runs
    .map(([first, last]) =>
      first === last ? (first === "no bay" ? first : bayWords(first)) : `${bayWords(first)} to ${last}`,
    )
    .join(", ");
}

/**
 * Folds what is left alone as members of one pool, array or virtual drive. What is to be changed, was never looked at, is
 * gone, or belongs to nothing stays in the list, drive by drive.
 */
export function foldAlike(
  drives: readonly Drive[],
  isLeft: (drive: Drive) => boolean,
): { shown: Drive[]; alike: AlikeDrives[] } {
  const groups = new Map<string, Drive[]>();
  for (const drive of drives) {
    if (!isLeft(drive) || drive.missingSince !== null || drive.memberOf.length === 0) continue;
    const key = drive.memberOf.join(", ");
    groups.set(key, [...(groups.get(key) ?? []), drive]);
  }
  const alike = [...groups]
    .filter(([, members]) => members.length >= LEAST)
    .map(([key, members]) => ({
      key,
      drives: members,
      words: `${members.length} drives of ${key} are protected: ${bayList(members)}`,
    }));
  const folded = new Set(alike.flatMap((a) => a.drives));
  return { shown: drives.filter((d) => !folded.has(d)), alike };
}
