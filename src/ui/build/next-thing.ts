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
  if (!machine) return { words: "Choose the machine, or read a new one.", href: "#zone-A" };
  if (!image) return { words: "Say what is to be installed: drop its image file.", href: "#zone-B" };
  if (!profile) return { words: "Say which family the image is like.", href: "#zone-B" };
  if (drives > 0 && build.sheet.storage.target === null)
    return { words: "Choose the drive to install on.", href: "#zone-D" };
  const [stop] = evaluation.stops;
  if (stop) {
    const others = evaluation.stops.length - 1;
    const more = others === 0 ? "the only stop" : `and ${others} more ${others === 1 ? "stop" : "stops"}`;
    return { words: `${stop.label}, ${stop.title}: ${more}.`, href: `#${stop.label}` };
  }
  const issued = build.revision !== null && build.revisionVersion === build.version;
  return issued
    ? {
        words: "Print the answer card, and start the run beside the console.",
        href: `/builds/${build.id}/card`,
      }
    : {
        words: "Nothing stops it. Look at its answer card, then issue the revision.",
        href: `/builds/${build.id}/card`,
      };
}
