// Without schemas, so that a page that only lists them needs no reader of documents.

/** What a system can be started from; see `targetKind` in the build for how a drive is sorted. */
export const TARGET_KINDS = ["drive", "flash card", "stick", "hardware array"] as const;
export type TargetKind = (typeof TARGET_KINDS)[number];

/** How the drives that a system is installed on stand together. */
export const LAYOUTS = ["single drive", "mirror", "stripe", "raidz1", "raidz2", "raidz3"] as const;
export type Layout = (typeof LAYOUTS)[number];
