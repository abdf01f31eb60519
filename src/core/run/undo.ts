import { NOTHING_TO_PUT_BACK, type Strip } from "../stage";

/** What a build has changed for the installation only and has not put right yet, by what its steps left behind. */
export function stillToUndo({
  media,
  nextBoot,
  firmware,
}: Required<Pick<Strip, "media" | "nextBoot" | "firmware">>): string[] {
  return [
    ...(media === "none" ? [] : [`${media}, to disconnect`]),
    ...(nextBoot.startsWith("always") ? ["boot order, to restore"] : []),
    ...(firmware === NOTHING_TO_PUT_BACK ? [] : [`${firmware}, for the installation only`]),
  ];
}
