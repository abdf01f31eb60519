import type { Duration, RateSample } from "../estimate";
import { stripAfter } from "./effects";
import type { Step } from "./step";

/** The usual cautions, at the steps where they matter. They defer to local rules and the maker's manual. */
export const HAZARD = {
  static: "Static discharge: touch bare metal of the chassis or wear a strap before reaching inside.",
  lift: "Racking: use two people or a lift for anything heavy; follow the manual of the vendor.",
  mains: "Mains and UPS work follows local rules and is done by licensed electricians.",
  laser: "An open disc drive or optical port may hold a laser: do not look into it.",
  change: "From here on the installed system is changed; only a backup can restore it.",
  erase: "From here on the contents of the target are lost.",
};

const STEP: Omit<Step, "id" | "zone" | "title" | "duration" | "after"> = {
  kind: "act",
  place: "desk",
  see: [],
  never: [],
  do: [],
  type: [],
  secret: [],
  keys: "",
  expected: [],
  hazards: [],
  guard: null,
  readBack: null,
  figure: null,
  moves: null,
  must: "",
  asks: "",
  does: null,
  screen: "",
  told: null,
  runs: 0,
  effects: [],
};

type Made = Partial<Omit<Step, "after">> & Pick<Step, "title">;
export const step = (id: string, zone: Step["zone"], duration: Duration, made: Made): Step => ({
  ...STEP,
  id,
  zone,
  duration,
  ...made,
  after: stripAfter(made.effects ?? []),
});

export type Moves = { way: RateSample["way"]; through: string; bytes: number };
