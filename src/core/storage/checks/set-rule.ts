import type { FactsOf, Hit } from "../../finding";
import type { Drive } from "../../machine";
import type { StorageGround } from "../ground";
import { seatsOf, type PlannedSet } from "../sets";
import type { SET_MESSAGES } from "./set-messages.en";
import { rule, type At, type StorageRule } from "./rule";

/** Where the findings about planned sets stand on the sheet. */
export const SETS = "storage.sets" as const;

type Codes = keyof typeof SET_MESSAGES;
type Found<Code extends Codes> = Hit<At, FactsOf<(typeof SET_MESSAGES)[Code]>>;

/** A rule about each planned set. */
export const eachSet = <Code extends Codes>(
  code: Code,
  run: (ground: StorageGround, set: PlannedSet) => Found<Code> | null,
): StorageRule =>
  rule(code, (ground) =>
    ground.sheet.storage.sets.flatMap((set) => {
      const found = run(ground, set);
      return found ? [{ ...found, subject: set.id }] : [];
    }),
  );

/** A rule about each drive of each planned set. */
export const eachDrive = <Code extends Codes>(
  code: Code,
  run: (ground: StorageGround, set: PlannedSet, drive: Drive) => Found<Code> | null,
): StorageRule =>
  rule(code, (ground) =>
    ground.sheet.storage.sets.flatMap((set) =>
      seatsOf(ground, set).flatMap(({ drive }) => {
        const found = run(ground, set, drive);
        return found ? [{ ...found, subject: `${set.id} ${drive.id}` }] : [];
      }),
    ),
  );
