import { term } from "@/core/text";
import type { PlacedFinding } from "@/core/finding";
import { SEVERITY_RULE, SEVERITY_TEXT, Signal } from "../frame/signal";

/** What does not fit at a site as a whole; nothing where all fits. */
export function SiteFindings({ findings }: { findings: readonly PlacedFinding[] }) {
  if (findings.length === 0) return null;
  return (
    <section
      aria-label="Conflicts"
      className={`mb-5 border-l-2 pl-3 ${SEVERITY_RULE[findings[0]!.severity]}`}
    >
      <ul className="max-w-[78ch]">
        {findings.map((f) => (
          <li key={f.key} className="flex gap-2 py-0.5">
            <span className={`flex h-5 w-20 shrink-0 items-center gap-1.5 ${SEVERITY_TEXT[f.severity]}`}>
              <Signal severity={f.severity} />
              <span className="font-semibold">{term(f.severity)}</span>
            </span>
            <span>
              {f.says} <span className="quiet">{f.remedy}</span>
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}
