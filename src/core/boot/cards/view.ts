import type { PercentReading } from "./sync";

/** A sync under way, and until when a state that looks like a fault is none. */
export interface SyncView {
  readings: PercentReading[];
  /** Null while nothing tells it: one reading of a page that names no time. */
  endsAt: string | null;
  lateAt: string | null;
  /** Where the end comes from, in words. */
  from: string;
  /** "overdue": by its own readings it should have ended, and nobody has read since that it did. */
  stands: "under way" | "end not known" | "overdue";
}

/** The module for boot cards of a machine. */
export interface CardModuleView {
  module: string;
  cards: { slot: string; state: string; isPrimary: boolean }[];
  /** The mirror as it was read; null where the module has none, or nobody looked. */
  mirror: { name: string; level: string; state: string; isWhole: boolean } | null;
  sync: SyncView | null;
  /** The target of the sheet stands on it. */
  isTarget: boolean;
}
