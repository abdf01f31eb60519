import type { Duration } from "../estimate";
import { stripAfter } from "./effects";
import type { CommonParts, Operation } from "./operation";

/** The usual cautions, at the steps where they matter. They defer to local rules and the maker's manual. */
export const HAZARD = {
  static: "Static discharge: touch bare metal of the chassis or wear a strap before reaching inside.",
  lift: "Racking: use two people or a lift for anything heavy; follow the manual of the vendor.",
  mains: "Mains and UPS work follows local rules and is done by licensed electricians.",
  laser: "An open disc drive or optical port may hold a laser: do not look into it.",
  change: "From here on the installed system is changed; only a backup can restore it.",
  erase: "From here on the contents of the target are lost.",
};

type Given = "id" | "zone" | "title" | "duration" | "after";

const COMMON: Omit<CommonParts, Given> = {
  place: "desk",
  origin: { of: "work" },
  do: [],
  lines: [],
  secrets: [],
  keys: "",
  hazards: [],
  sees: [],
  never: [],
  normal: [],
  must: "",
  records: "",
  figure: null,
  runs: 0,
  measures: [],
  effects: [],
  deeds: [],
  lent: [],
};

/** What a kind has of its own. */
type OwnOf<O> = O extends Operation ? Omit<O, keyof CommonParts> : never;

/** What is said of an operation beside its place and its time; what is not said is empty. */
type Made = Partial<Omit<CommonParts, Given>> & Pick<CommonParts, "title"> & OwnOf<Operation>;

export const operation = (
  id: string,
  zone: CommonParts["zone"],
  duration: Duration,
  made: Made,
): Operation => ({ ...COMMON, ...made, id, zone, duration, after: stripAfter(made.effects ?? []) });
