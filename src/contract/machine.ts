import type { ReadToShow, RegisterEntry, Verdict } from "@/core/machine";
import type { Proposal } from "@/core/site";

/** What dropped texts would do, before anything is done. */
export interface ImportPreview extends Omit<ReadToShow, "facts" | "hostName"> {
  /** Other machines that carry the same chassis serial. */
  sameSerial: { id: string; name: string }[];
  suggestedName: string;
  /** What the sheet of a machine that is the first of its place would begin with. */
  proposed: Proposal[];
}

/** A drive, stick or card as the register has it, judged. */
export interface RegisterLine {
  key: string;
  version: number;
  entry: RegisterEntry;
  where: string;
  machineId: string | null;
  verdict: Verdict;
  reasons: string[];
  wear: string;
}

/** What the register says of a drive that is in a machine. */
export interface DriveFile extends RegisterLine {
  /** Spares in storage that could stand in for it: of its class, and not smaller by a byte. */
  spares: string[];
}
