import type { Verdict } from "@/core/machine";
import { term } from "@/core/text";

const COLOUR: Record<Verdict, string> = {
  failing: "var(--color-error)",
  watch: "var(--color-warning)",
  good: "var(--color-success)",
  "not known": "currentColor",
};

/** Health by shape, word and colour: a gauge whose needle lies right, upright or left; an empty one is not known. */
export function HealthMark({ verdict, bare = false }: { verdict: Verdict; bare?: boolean }) {
  return (
    <span className="inline-flex items-center gap-1 whitespace-nowrap" style={{ color: COLOUR[verdict] }}>
      <svg
        viewBox="0 0 16 10"
        width="16"
        height="10"
        role={bare ? "img" : undefined}
        aria-label={bare ? term(verdict) : undefined}
        aria-hidden={!bare}
        fill="none"
        stroke="currentColor"
        strokeWidth="1.6"
      >
        <path
          d="M1.5 9 A6.5 6.5 0 0 1 14.5 9"
          strokeDasharray={verdict === "not known" ? "2 2" : undefined}
        />
        {verdict === "good" && <path d="M8 9 L12.5 4.5" />}
        {verdict === "watch" && <path d="M8 9 V2.6" />}
        {verdict === "failing" && <path d="M8 9 L3.5 4.5" strokeWidth="2.6" />}
      </svg>
      {!bare && <span className={verdict === "not known" ? "quiet" : ""}>{term(verdict)}</span>}
    </span>
  );
}
