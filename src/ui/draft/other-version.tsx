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
        This was changed by another hand since you typed “{words(other.value) || "nothing"}”. What stands now
        is shown here.
      </p>
      <p className="flex gap-4">
        <button type="button" className="link" onClick={() => onTake(other.value)}>
          put mine in its place
        </button>
        <button type="button" className="link" onClick={onDrop}>
          leave it as it stands
        </button>
      </p>
    </div>
  );
}
