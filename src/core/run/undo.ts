import type { Strip } from "../stage";

/** What a build has changed for the installation only and has not put right yet, by what its steps left behind. */
export function stillToUndo({ media, nextBoot }: Required<Pick<Strip, "media" | "nextBoot">>): string[] {
  return [
    ...(media === "none" ? [] : [`${media}, to be taken out`]),
    ...(nextBoot.startsWith("always") ? ["the boot order, to be put back"] : []),
  ];
}
