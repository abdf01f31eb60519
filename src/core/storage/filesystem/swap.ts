const PAGE = 4096;

/** Bytes of a swap area: whole pages, less the one that describes it. */
export const swapBytes = (bytes: number): number => Math.max(0, Math.floor(bytes / PAGE) * PAGE - PAGE);
