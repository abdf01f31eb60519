import { endWords, isListRead, questionWords, resolveBoot, seenMachine } from "../boot";
import type { Facts } from "../machine";
import { asFound } from "./target";
import { differs, notSeen, seen, type Seen } from "./seen";

/** What the next restart starts, by the list of the firmware as it stands after the last one. */
export function lookAtStart({ drives, marks }: { drives: string[]; marks: string[] }, facts: Facts): Seen {
  if (!isListRead(facts)) return notSeen("boot entries were not collected");
  const { end, depends } = resolveBoot(seenMachine(facts, "uefi", marks));
  const found = endWords(end);
  if (end.kind !== "system" || !asFound(drives, facts).includes(end.device.id)) return differs(found);
  // A start that hangs on what was not read, or on the ways of a firmware, has not been seen.
  const [open] = depends;
  return open ? notSeen(`${found}, if ${questionWords(open.question)}`) : seen(found, true);
}
