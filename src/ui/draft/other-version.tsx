"use client";

/**
 * What was typed here over something that another hand has changed since: it is neither put over that nor thrown away
 * before its writer has said which of the two stays.
 */
export function OtherVersion<T>({
  other,
  words,
  onTake,
  onDrop,
}: {
  other: { value: T } | null;
  /** What was typed, as it can be read. */
  words: (value: T) => string;
  onTake: (value: T) => void;
  onDrop: () => void;
}) {
  if (!other) return null;
  return (
    <div role="alert" className="border-l-4 py-1 pl-3 border-warning">
      <p>
        Someone else changed this field after you typed “{words(other.value) || "nothing"}”. The saved value
        is shown.
      </p>
      <p className="flex gap-4">
        <button type="button" className="link" onClick={() => onTake(other.value)}>
          Use my value
        </button>
        <button type="button" className="link" onClick={onDrop}>
          Keep the saved value
        </button>
      </p>
    </div>
  );
}
