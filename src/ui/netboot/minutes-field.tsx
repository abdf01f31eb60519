"use client";

const MINUTES = [
  { value: 30, text: "30 minutes" },
  { value: 60, text: "1 hour" },
  { value: 240, text: "4 hours" },
  { value: 720, text: "12 hours" },
  { value: 1440, text: "1 day" },
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
