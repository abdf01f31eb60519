import type { Drive, OnMachine } from "../../machine";
import type { StorageSlice } from "../slice";
import { setFigures, type SetFigures } from "./figures";
import { oddDrives, type OddDrives } from "./odd";
import type { PlannedSet } from "./planned";
import { SEAT_LISTS, SEAT_ROLES, type SeatRole } from "./seats";
import type { Result } from "../../result";

type OnSets = OnMachine & { sheet: { storage: Pick<StorageSlice, "sets"> } };

const finder =
  ({ machine }: OnMachine) =>
  (id: string): Drive | undefined =>
    machine?.document.facts.drives.find((d) => d.id === id);

/** A drive of a planned set with what it is there for. */
export interface Seat {
  drive: Drive;
  role: SeatRole;
}

/** The drives of a planned set that are among the machine's facts, each with its role; members first. */
export function seatsOf(ground: OnMachine, set: PlannedSet): Seat[] {
  const byId = finder(ground);
  return SEAT_ROLES.flatMap((role) =>
    set[SEAT_LISTS[role]].flatMap((id) => {
      const drive = byId(id);
      return drive ? [{ drive, role }] : [];
    }),
  );
}

/** Drives that keep the data of a set, or will when one of them fails. */
export const isOfData = ({ role }: Pick<Seat, "role">): boolean => role === "member" || role === "spare";

/** The sets that this build makes itself. */
export const setsNow = <Set extends Pick<PlannedSet, "later">>(sets: readonly Set[]): Set[] =>
  sets.filter((s) => s.later === null);

/** All drives that are written to make the planned sets; those of one that is left for later are not. */
export const setDrivesOf = (ground: OnSets): Drive[] =>
  setsNow(ground.sheet.storage.sets).flatMap((set) => seatsOf(ground, set).map((s) => s.drive));

/** What follows from the layout of a planned set; fails where its drives make none. */
export const figuresOf = (ground: OnSets, set: PlannedSet): Result<SetFigures> =>
  setFigures(set, finder(ground));

/** Its drives of another size than most, with what each fate of them costs; null while all are of one size. */
export const oddOf = (ground: OnSets, set: PlannedSet): OddDrives | null => oddDrives(set, finder(ground));
