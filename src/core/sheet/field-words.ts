import type { Zone } from "../finding";
import { STAGES } from "./stages";

const OF_PATH = new Map<string, { zone: Zone; name: string }>(
  STAGES.flatMap(({ zone, names }) =>
    Object.entries<string>(names).map(([path, name]): [string, { zone: Zone; name: string }] => [
      path,
      { zone, name },
    ]),
  ),
);

/** A field of the sheet for a person: its zone letter and its name ("E gateway"); one of no stage is called by its path. */
export const fieldWords = (path: string): { zone: Zone | null; name: string } =>
  OF_PATH.get(path) ?? { zone: null, name: path };

/** All of them as one table, for where the stages themselves would be too much to carry: "E gateway" by its path. */
export const fieldNames = (): Record<string, string> =>
  Object.fromEntries([...OF_PATH].map(([path, { zone, name }]) => [path, `${zone} ${name}`]));
