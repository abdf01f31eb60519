"use client";

/** Whether a text has all of some words in it, in any order. */
export const hasWords = (text: string, words: string): boolean => {
  const all = text.toLowerCase();
  return words
    .toLowerCase()
    .split(/\s+/)
    .every((w) => all.includes(w));
};

/** The field that narrows a list by any words. */
export const NarrowField = ({
  words,
  onChange,
  placeholder,
}: {
  words: string;
  onChange: (words: string) => void;
  placeholder?: string;
}) => (
  <label className="w-96">
    <span className="label">Filter</span>
    <input
      className="input"
      value={words}
      placeholder={placeholder}
      onChange={(e) => onChange(e.target.value)}
    />
  </label>
);

/** How many rows of a list are shown. */
export const ShownCount = ({ shown, all, what }: { shown: number; all: number; what: string }) => (
  <span className="quiet ml-auto" role="status">
    {shown === all ? `${all} ${what}` : `${shown} of ${all} ${what}`}
  </span>
);
