import { term } from "@/core/text";
type Severity = "stop" | "caution" | "note";

/**
 * Severity by shape, word and colour together: a stop is a filled barrier (two uprights and a bar), a caution a leaning
 * prop, a note a pencil tick.
 */
export function Signal({ severity, size = 14 }: { severity: Severity; size?: number }) {
  return (
    <svg
      viewBox="0 0 16 16"
      width={size}
      height={size}
      role="img"
      aria-label={term(severity)}
      className={`inline-block shrink-0 ${SEVERITY_TEXT[severity]}`}
    >
      {severity === "stop" && <path fill="currentColor" d="M1 2h3v4h8V2h3v12h-3v-4H4v4H1z" />}
      {severity === "caution" && (
        <path
          fill="none"
          stroke="currentColor"
          strokeWidth="2.4"
          d="M2 14 L13 3 M1 14 H15 M13 3 V14"
          strokeLinejoin="round"
        />
      )}
      {severity === "note" && <path fill="none" stroke="currentColor" strokeWidth="2" d="M2 9 L6 13 L14 3" />}
    </svg>
  );
}

/** The colour of a severity as classes, for the rule beside a finding and for its words. */
export const SEVERITY_RULE: Record<Severity, string> = {
  stop: "border-error",
  caution: "border-warning",
  note: "border-info",
};
export const SEVERITY_TEXT: Record<Severity, string> = {
  stop: "text-error",
  caution: "text-warning",
  note: "text-info",
};
