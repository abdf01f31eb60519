import type { BootDevice } from "../resolve";
import { HIDDEN_WORDS, QUESTIONS, REASONS, type Attempt, type End, type Question } from "../resolve";
import type { Moment, MomentView } from "./view";

const fill = (text: string, facts: Readonly<Record<string, string>>): string =>
  text.replace(/\{(\w+)\}/g, (_, key: string) => facts[key] ?? "?");

/** Why an attempt does not start, as a sentence; null where it does. */
export function whyWords({ reason, device, label, file, entry }: Attempt): string | null {
  if (!reason) return null;
  const hidden = device?.hidden;
  return fill(REASONS[reason].says, {
    device: device?.name ?? "the boot entry",
    entry: label ? `"${label}"` : `entry ${entry ?? "?"}`,
    file: file ?? "its loader",
    why: hidden && hidden !== "unknown" ? HIDDEN_WORDS[hidden] : "it is disabled",
  });
}

/** A device in the middle of a sentence: with its article where its name is what it is. */
export function deviceWords({ kind, name }: Pick<BootDevice, "kind" | "name">): string {
  if (kind === "network port") return `the network (${name})`;
  return kind === "virtual disc" || kind === "disc" || kind === "boot card" || name === "stick"
    ? `the ${name}`
    : name;
}

/** Where a start ends, as the end of a sentence: "starts Cairn 9 from the boot module". */
export function endWords(end: End): string {
  switch (end.kind) {
    case "system":
      return end.starts
        ? `boots ${end.starts} from ${deviceWords(end.device)}`
        : `boots from ${deviceWords(end.device)} (contents unknown)`;
    case "shell":
      return "ends in the shell of the firmware";
    case "set-up":
      return "ends in the firmware setup";
    case "hangs":
      return `stops at ${end.device ? deviceWords(end.device) : "a loader"} without a message`;
    case "nothing":
      return "finds nothing to boot and waits";
  }
}

/** What was taken for granted, or with `not` its opposite. */
export const questionWords = ({ code, facts, taken }: Question, not = false): string =>
  fill(QUESTIONS[code][taken === not ? "no" : "yes"], facts);

export const MOMENT_WORDS: Readonly<Record<Moment, string>> = {
  now: "now",
  "to install": "installation boot",
  "first restart": "first restart",
  "power loss": "power loss, later",
};

/** The same moments as the subject of a sentence. */
export const momentSubject = (moment: Moment): string =>
  moment === "power loss"
    ? "a boot after a power loss"
    : `the ${moment === "now" ? "next restart" : "first restart"}`;

type Told = Pick<MomentView, "ends" | "verdict">;

/** What the next start and the one after it come to, for the phone; `once` where that start changes nothing for good. */
export function storyWords(install: Told, restart: Told, once: boolean): string {
  if (install.verdict === "medium not started")
    return `The next restart ${install.ends}; the medium does not boot.`;
  if (restart.verdict === "installer again")
    return `The next restart ${install.ends}, and so does every later restart while the medium stays connected.`;
  if (install.ends === restart.ends) return `The next restart ${install.ends}.`;
  const how = install.verdict === "as wanted" && once ? ", once," : "";
  return `The next restart${how} ${install.ends}; after that it ${restart.ends}.`;
}
