import type { BuildView } from "@/core/sheet";

export interface NextThing {
  words: string;
  /** Where it is done. */
  href: string;
}

/** What a sheet waits for next, in the order in which one comes from nothing to a run; null once it is carried out. */
export function nextThing({ build, context, evaluation, run }: BuildView): NextThing | null {
  const { machine, image, profile } = context;
  const drives = machine?.document.facts.drives.length ?? 0;
  if (run) return null;
  if (!machine) return { words: "Choose the machine, or add one.", href: "#zone-A" };
  if (!image) return { words: "Choose what to install: drop its image file.", href: "#zone-B" };
  if (!profile) return { words: "Choose the OS family that the image is similar to.", href: "#zone-B" };
  if (drives > 0 && build.sheet.storage.target === null)
    return { words: "Choose the target drive.", href: "#zone-D" };
  const [stop] = evaluation.stops;
  if (stop) {
    const others = evaluation.stops.length - 1;
    const more =
      others === 0 ? "the only blocker" : `and ${others} more ${others === 1 ? "blocker" : "blockers"}`;
    return { words: `${stop.label}, ${stop.title}: ${more}.`, href: `#${stop.label}` };
  }
  const issued = build.revision !== null && build.revisionVersion === build.version;
  return issued
    ? {
        words: "Print the answer card, then start the run next to the console.",
        href: `/builds/${build.id}/card`,
      }
    : {
        words: "No blockers. Check the answer card, then issue the revision.",
        href: `/builds/${build.id}/card`,
      };
}
