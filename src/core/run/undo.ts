import { NOTHING_TO_PUT_BACK, type Strip } from "../work";

/** What a build has changed for the installation only and has not put right yet, by what its steps left behind. */
export function stillToUndo({
  media,
  nextBoot,
  firmware,
}: Required<Pick<Strip, "media" | "nextBoot" | "firmware">>): string[] {
  return [
    ...(media === "none" ? [] : [media]),
    ...(nextBoot.startsWith("always") ? ["changed boot order"] : []),
    ...(firmware === NOTHING_TO_PUT_BACK ? [] : [firmware]),
  ];
}
