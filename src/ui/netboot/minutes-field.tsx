"use client";

const MINUTES = [
  { value: 30, text: "30 minutes" },
  { value: 60, text: "an hour" },
  { value: 240, text: "four hours" },
  { value: 720, text: "twelve hours" },
  { value: 1440, text: "a day" },
];

/** For how long a machine may ask for its installation once it is armed. */
export const MinutesField = ({ value, onChange }: { value: number; onChange: (minutes: number) => void }) => (
  <select className="select mt-1" value={value} onChange={(e) => onChange(Number(e.target.value))}>
    {MINUTES.map(({ value: minutes, text }) => (
      <option key={minutes} value={minutes}>
        {text}
      </option>
    ))}
  </select>
);
