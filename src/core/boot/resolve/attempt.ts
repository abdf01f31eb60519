import type { BootDevice } from "./machine";
import { REASONS, type Outcome, type Reason, type ReasonCode } from "./reasons";

/** What came of trying to start from one device. */
export interface Tried {
  device: BootDevice | null;
  /** The program that was started or looked for; null where there is none. */
  file: string | null;
  outcome: Outcome;
  /** Null where it starts. */
  reason: ReasonCode | null;
  /** What runs, in words; "" where it is not known what it is, null where nothing runs. */
  starts: string | null;
}

/** One try of the firmware, in the order in which it makes them. */
export interface Attempt extends Tried {
  via: "once" | "order" | "set-up";
  /** Id of the entry; null in legacy mode, which has none. */
  entry: string | null;
  label: string;
  /** Seconds until the firmware goes on; 0 where that takes no time worth counting. */
  seconds: number;
}

/** Where a start ends. */
export type End =
  | { kind: "system"; device: BootDevice; starts: string; file: string | null }
  | { kind: "shell" | "set-up" | "nothing" }
  | { kind: "hangs"; device: BootDevice | null };

export const failed = (
  reason: ReasonCode,
  device: BootDevice | null = null,
  file: string | null = null,
): Tried => ({ device, file, outcome: REASONS[reason].outcome, reason, starts: null });

/** The attempt with the time that it takes in this mode. */
export function attemptOf(
  { device, file, outcome, reason, starts }: Tried,
  { via, entry, label }: Pick<Attempt, "via" | "entry" | "label">,
  mode: "uefi" | "legacy",
): Attempt {
  const why: Reason | null = reason && REASONS[reason];
  return { device, file, outcome, reason, starts, via, entry, label, seconds: why?.seconds?.[mode] ?? 0 };
}
