/** A day on which something is due, and where it is dealt with. */
export interface DueDate {
  date: string;
  what: string;
  href: string;
}

/** A day that a machine or a sheet calls for; `today` is the day where it stands, or will stand. */
export interface Called extends DueDate {
  today: string;
}

/** An image with the end of its support; `wanted` while a build that is not handed over uses it. */
interface Supported {
  id: string;
  name: string;
  supportEnds: string | null;
  wanted: boolean;
}

/** So many coming dates are shown; those that are over are all shown, since each waits for somebody. */
export const MOST_COMING = 12;

/**
 * What is due. A date that is over stays until it is done: marked done on the machine, licensed, fixed; the end of an
 * image's support as long as a build that is not handed over uses it. Coming dates stand apart, so that nothing that is
 * over pushes them out. `today` is the day for images, which are at no site: the earliest at any. `left` are coming dates
 * that were not even read.
 */
export function dueDates(
  called: readonly Called[],
  images: readonly Supported[],
  today: string,
  left = 0,
): { over: DueDate[]; coming: DueDate[]; more: number } {
  const supports = images.flatMap(({ id, name, supportEnds, wanted }): Called[] =>
    supportEnds !== null && (supportEnds >= today || wanted)
      ? [{ date: supportEnds, what: `Support ends: ${name}`, href: `/images/${id}`, today }]
      : [],
  );
  const all = [...called, ...supports].sort((a, b) => a.date.localeCompare(b.date));
  const shown = ({ today: _, ...due }: Called): DueDate => due;
  const coming = all.filter((d) => d.date >= d.today);
  return {
    over: all.filter((d) => d.date < d.today).map(shown),
    coming: coming.slice(0, MOST_COMING).map(shown),
    more: Math.max(0, coming.length - MOST_COMING) + left,
  };
}

/** A date that a machine or a sheet claims, in words, with the way to where it is dealt with. */
export function calledFor(claim: {
  /** "2026-12-01 Evaluation ends". */
  key: string;
  owner: "machine" | "build";
  ownerId: string;
  machine: string | null;
  subject: string | null;
  hostName: string | null;
  number: string | null;
}): DueDate {
  const { key, owner, ownerId, machine, subject, hostName, number } = claim;
  const [date = "", ...words] = key.split(" ");
  const what = words.join(" ");
  const sheet = subject || number;
  const name = owner === "machine" ? machine : what === "Address becomes static" ? hostName || sheet : sheet;
  return { date, what: `${what}: ${name ?? ""}`, href: `/${owner}s/${ownerId}` };
}
