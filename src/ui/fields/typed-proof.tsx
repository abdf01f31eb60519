"use client";

import { useState } from "react";

/**
 * The field of a guard: what a person reads from a console, a label or the drive, and types. What was copied proves only
 * that it was copied, so pasting and dropping are refused in words.
 */
export function TypedProof({
  value,
  onChange,
  label,
  className,
  autoFocus = false,
}: {
  value: string;
  onChange: (value: string) => void;
  label: string;
  className: string;
  autoFocus?: boolean;
}) {
  const [refused, setRefused] = useState(false);
  const refuse = (e: { preventDefault: () => void }): void => {
    e.preventDefault();
    setRefused(true);
  };
  return (
    <>
      <input
        autoFocus={autoFocus}
        className={className}
        value={value}
        maxLength={120}
        autoComplete="off"
        spellCheck={false}
        aria-label={label}
        onPaste={refuse}
        onDrop={refuse}
        onChange={(e) => {
          setRefused(false);
          onChange(e.target.value);
        }}
      />
      {refused && (
        <span role="alert" className="block text-[0.93rem] text-error">
          Pasted text is not accepted as proof. Read the number from the drive, its label or the console, and
          type it.
        </span>
      )}
    </>
  );
}
