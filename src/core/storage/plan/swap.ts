/** How much swap a system is given; the first one leaves it to the installer. */
export const SWAP_SCHOOLS = [
  "as the installer does",
  "none",
  "4 GiB",
  "half of memory",
  "all of memory",
] as const;
export type SwapSchool = (typeof SWAP_SCHOOLS)[number];

const GIB = 2 ** 30;

/** Why somebody would choose it, and what follows. */
export const SWAP_REASONS: Readonly<Record<SwapSchool, string>> = {
  "as the installer does": "the default for typical machines; rarely large, rarely none",
  none: "much memory, and a limit for each guest: a guest that exceeds it is stopped, and the host never swaps",
  "4 GiB": "space for unused memory pages; a machine that swaps more is short of memory",
  "half of memory": "an old rule for small machines",
  "all of memory": "required for a full crash dump or for hibernation",
};

/** Bytes of a school: whole GiB of the memory; null where that follows from memory that nobody has read. */
export function swapWanted(school: SwapSchool, memoryBytes: number | null): number | null {
  if (school === "none") return 0;
  if (school === "4 GiB") return 4 * GIB;
  if (school === "as the installer does" || memoryBytes === null) return null;
  const whole = Math.ceil(memoryBytes / GIB);
  return (school === "half of memory" ? Math.ceil(whole / 2) : whole) * GIB;
}
