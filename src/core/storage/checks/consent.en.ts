/** How the consent to erase a drive stands. */
export const CONSENT = {
  nobody: "nobody has agreed to erase it",
  agreed: "{by} agreed on {day}",
  ended: "the consent of {by} of {day} has ended: it was given for: {before}",
  "ended, not said for what": "the consent of {by} of {day} has ended: it does not say for what it was given",
} as const;
