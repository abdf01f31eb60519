import { bayWords, driveName, type Drive } from "../../machine";
import type { Rung } from "../bench/capacity";
import { consequence, layoutName } from "../bench/words.en";
import type { StorageGround } from "../ground";
import { benchQuery } from "../bench/of-machine";
import type { Layout } from "../bench/layout";
import type { Question } from "../bench/question";
import { figuresOf, isOfData, seatsOf } from "./ground";
import type { PlannedSet } from "./planned";
import type { SeatRole } from "./seats";
import { volumesOf, type VolumesView } from "./volumes";
import { setName } from "./words.en";

/** A planned set with what follows from it, as the sheet shows it. */
export interface SetView {
  id: string;
  title: string;
  /** Drives in the order of the set, members first; `group` is null for those that stand by. */
  seats: { id: string; place: string; look: string; sizeBytes: number; group: number | null }[];
  /** Special devices, logs and caches, which stand beside the data. */
  helpers: { id: string; place: string; look: string; role: SeatRole }[];
  /** What is made on it; null where nothing is planned. */
  volumes: VolumesView | null;
  /** What the chance of loss was worked out with. */
  working: {
    question: Question;
    layout: Layout;
    rebuild: { likely: number; late: number };
    unreadable: number;
  } | null;
  /** Why its drives make no set of this layout; null where they do. */
  fault: string | null;
  /** "2 × raidz2 of 6", and the sentence that says what follows. */
  layout: string;
  sentence: string;
  rawBytes: number;
  usableBytes: number;
  /** Members that may fail, whichever they are. */
  worst: number;
  loss: number;
  rebuildSeconds: { likely: number; late: number } | null;
  ladder: Rung[];
  /** Where the bench lays out the same drives. */
  bench: string | null;
}

const placeOf = (drive: Drive): string => (drive.bay ? bayWords(drive.bay) : drive.seenAs);

const NOTHING = { layout: "", sentence: "", rawBytes: 0, usableBytes: 0, worst: 0, loss: 0 } as const;

/** What special devices bear by themselves: with them the pool is lost, whatever its data bear. */
function specialWords({ special }: Pick<PlannedSet, "special">): string {
  if (special.length === 0) return "";
  return special.length === 1
    ? " Its special device has no mirror: if it fails, the pool is lost."
    : ` Its ${special.length} special devices tolerate ${special.length - 1} failures; without the last one the pool is lost.`;
}

/** The planned sets of a sheet with their figures. */
export function setViews(ground: StorageGround): SetView[] {
  return ground.sheet.storage.sets.map((set): SetView => {
    const drives = seatsOf(ground, set);
    const width = Math.max(1, Math.ceil(set.members.length / set.groups));
    const figures = figuresOf(ground, set);
    const ofData = drives.filter(isOfData);
    const seats = ofData.map(({ drive, role }) => ({
      ...{ id: drive.id, place: placeOf(drive), look: driveName(drive), sizeBytes: drive.sizeBytes },
      group: role === "spare" ? null : Math.floor(set.members.indexOf(drive.id) / width),
    }));
    const helpers = drives
      .filter((d) => !isOfData(d))
      .map(({ drive, role }) => ({ id: drive.id, place: placeOf(drive), look: driveName(drive), role }));
    const bench = benchQuery(ofData.map((d) => d.drive));
    const shared = { id: set.id, title: setName(set), seats, helpers, bench };
    if (!figures.ok)
      return {
        ...shared,
        ...NOTHING,
        fault: figures.problems[0]!.message,
        rebuildSeconds: null,
        ladder: [],
        volumes: null,
        working: null,
      };
    const { candidate, question } = figures.value;
    const { layout, rebuild, unreadable } = candidate;
    return {
      ...{
        ...shared,
        fault: null,
        layout: layoutName(candidate.layout),
        sentence: `${consequence(candidate)}${specialWords(set)}`,
      },
      ...{
        rawBytes: candidate.rawBytes,
        usableBytes: candidate.usableBytes,
        worst: candidate.survival.worst,
      },
      ...{ loss: figures.value.loss, rebuildSeconds: rebuild, ladder: candidate.ladder },
      volumes: volumesOf(set, figures.value),
      working: { question, layout, rebuild, unreadable },
    };
  });
}
