/** For how long a machine may ask for its installation once it is armed. */
export const MINUTES = [
  { value: 30, text: "30 minutes" },
  { value: 60, text: "an hour" },
  { value: 240, text: "four hours" },
  { value: 720, text: "twelve hours" },
] as const;
