/** A day on which something is due, and where it is dealt with. */
export interface DueDate {
  date: string;
  what: string;
  href: string;
}

interface DueSources {
  /** `today` is the day where the machine stands, or will stand. */
  machines: readonly {
    id: string;
    name: string;
    today: string;
    dates: readonly { due: string; what: string }[];
  }[];
  builds: readonly {
    id: string;
    name: string;
    hostName: string;
    imageId: string | null;
    licensed: boolean;
    evaluationEnds: string | null;
    /** For an address that is dynamic now. */
    fixedBy: string | null;
    handedOver: boolean;
    today: string;
  }[];
  images: readonly { id: string; name: string; supportEnds: string | null }[];
}

/** So many coming dates are shown; those that are over are all shown, since each waits for somebody. */
const MOST_COMING = 12;

/**
 * What is due. A date that is over stays until it is done: marked done on the machine, licensed, fixed; the end of an
 * image's support as long as a build that is not handed over uses it. Coming dates stand apart, so that nothing that is
 * over pushes them out. `today` is the day for images, which are at no site: the earliest at any.
 */
export function dueDates(
  { machines, builds, images }: DueSources,
  today: string,
): { over: DueDate[]; coming: DueDate[]; more: number } {
  const due = (date: string | null, own: string, what: string, href: string) =>
    date === null ? [] : [{ due: { date, what, href }, over: date < own }];
  const wanted = new Set(builds.filter((b) => !b.handedOver).map((b) => b.imageId));
  const all = [
    ...machines.flatMap((m) =>
      m.dates.flatMap((d) => due(d.due, m.today, `${d.what}: ${m.name}`, `/machines/${m.id}`)),
    ),
    ...builds.flatMap((b) => [
      ...(b.licensed ? [] : due(b.evaluationEnds, b.today, `Evaluation ends: ${b.name}`, `/builds/${b.id}`)),
      ...due(b.fixedBy, b.today, `Fix the address: ${b.hostName || b.name}`, `/builds/${b.id}`),
    ]),
    ...images
      .filter((i) => i.supportEnds !== null && (i.supportEnds >= today || wanted.has(i.id)))
      .flatMap((i) => due(i.supportEnds, today, `Support ends: ${i.name}`, `/images/${i.id}`)),
  ].sort((a, b) => a.due.date.localeCompare(b.due.date));
  const coming = all.flatMap((d) => (d.over ? [] : [d.due]));
  return {
    over: all.flatMap((d) => (d.over ? [d.due] : [])),
    coming: coming.slice(0, MOST_COMING),
    more: Math.max(0, coming.length - MOST_COMING),
  };
}
