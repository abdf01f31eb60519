/** How the consent to erase a drive stands. */
export const CONSENT = {
  nobody: "the erasure is not confirmed",
  agreed: "{by} confirmed the erasure on {day}",
  ended: "the confirmation by {by} of {day} is no longer valid: it covered: {before}",
  "ended, not said for what":
    "the confirmation by {by} of {day} is no longer valid: its scope was not recorded",
} as const;
