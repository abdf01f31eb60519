import type { Drive } from "../../machine";
import type { PlannedSet } from "./planned";

const MADE = /^made (.+)$/;

/** The id of the drive as which a controller will show a planned set. */
export const madeId = ({ id }: Pick<PlannedSet, "id">): string => `made ${id}`;

/** Whether a drive is not there yet, but to be made by a controller before the installation. */
export const isToBeMade = ({ id }: Pick<Drive, "id">): boolean => MADE.test(id);

/** The name that a virtual drive is given; what is typed at a guard is compared with it. */
export const madeName = (drive: Pick<Drive, "id" | "presentedBy">): string | null =>
  isToBeMade(drive) ? drive.presentedBy : null;
