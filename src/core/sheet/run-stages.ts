import { sumDurations } from "../estimate";
import type { Profile } from "../image";
import { open, said, type Stage } from "../stage";
import { type Operation } from "../work";
import { formatDuration } from "../units";

/** What the stages that follow from the others look at: nothing is chosen in them. */
export interface RunGround {
  steps: readonly Operation[];
  profile: Profile | null;
}

const following = { slice: {}, names: {}, checks: [], messages: {}, values: () => ({}) };

/** Stage G: the build on a simulated machine. */
export const rehearseStage = {
  ...following,
  zone: "G",
  title: "Dry run",
  summary: () => ({ summary: "A dry run on a simulated machine is not available yet", decided: "not here" }),
} satisfies Stage<unknown>;

/** Stage H: the steps at the machine. */
export const runStage = {
  ...following,
  zone: "H",
  title: "Run",
  // The sum that the body of the zone shows, and the lists: one figure for one thing.
  summary: ({ steps }) => {
    const { likelySeconds, lateSeconds } = sumDurations(steps.map((s) => s.duration));
    return steps.length > 0
      ? said(
          `${steps.length} steps, expected ${formatDuration(likelySeconds)}, up to ${formatDuration(lateSeconds)}`,
        )
      : open("Choose machine and image to get the steps");
  },
} satisfies Stage<RunGround>;

const SETTLE = "I";

/** Stage I: what is set once the installed system runs. */
export const settleStage = {
  ...following,
  zone: SETTLE,
  title: "First-boot tasks",
  summary: ({ steps, profile }) => {
    const own = steps.filter((s) => s.zone === SETTLE);
    return own.length > 0
      ? said(own.map((s) => s.title).join("; "))
      : { summary: "No first-boot tasks", decided: profile ? "not here" : false };
  },
} satisfies Stage<RunGround>;

/** Stage J: what was built against what was planned. */
export const acceptStage = {
  ...following,
  zone: "J",
  title: "Accept",
  summary: ({ steps }) =>
    steps.length > 0
      ? said("The bundle of the installed system is compared with this sheet")
      : open("The installed system will be compared with the plan"),
} satisfies Stage<RunGround>;
