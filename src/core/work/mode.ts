/** How a firmware starts a machine. */
export const MODES = ["uefi", "legacy"] as const;
export type Mode = (typeof MODES)[number];

export const modeWords = (mode: Mode): string => (mode === "uefi" ? "UEFI" : "legacy BIOS");
