"use client";

import { useEffect, useRef, useState, type RefObject } from "react";
import type { PlacedFinding } from "@/core/finding";
import { SEVERITY_RULE, SEVERITY_TEXT, Signal } from "../frame/signal";

const GAP = 10;
const WIDE = "(min-width: 56rem)";

/**
 * The margin: each finding stands level with the field it is about, pushed down only as far as the one above needs,
 * with a thin leader to its field. In a narrow window it is a drawer with the same notes in the same order.
 */
export function Margin({
  findings,
  sheet,
  layoutKey,
  drawer,
  onWaive,
}: {
  findings: PlacedFinding[];
  sheet: RefObject<HTMLElement | null>;
  layoutKey: string;
  drawer: boolean;
  onWaive: (finding: PlacedFinding) => void;
}) {
  const ref = useRef<HTMLElement>(null);
  useEffect(() => {
    const aside = ref.current;
    const root = sheet.current;
    if (!aside || !root) return;
    const place = () => placeNotes(aside, root);
    place();
    const observer = new ResizeObserver(place);
    observer.observe(root);
    aside.querySelectorAll("article").forEach((note) => observer.observe(note));
    return () => observer.disconnect();
  }, [findings, sheet, layoutKey, drawer]);

  return (
    <aside
      ref={ref}
      aria-label="Margin: findings"
      className={`sheet:absolute sheet:inset-y-0 sheet:right-0 sheet:block sheet:w-[21rem] sheet:bg-transparent sheet:shadow-none ${drawer ? "fixed inset-y-0 right-0 z-40 block w-[min(22rem,92vw)] overflow-y-auto border-l bg-base-100 p-3 pt-14 shadow-xl sheet:overflow-visible sheet:border-l sheet:p-0" : "hidden border-l"} border-base-300`}
    >
      <svg
        aria-hidden="true"
        className="pointer-events-none absolute top-0 -left-10 hidden h-full w-14 overflow-visible sheet:block"
        fill="none"
      >
        {findings.map((f) => (
          <path
            key={f.key}
            data-leader={f.label}
            stroke="currentColor"
            className={SEVERITY_TEXT[f.severity]}
            strokeWidth="1"
            opacity={f.waiver ? 0.4 : 0.9}
          />
        ))}
      </svg>
      {findings.length === 0 && <p className="quiet p-3">Nothing to say about this sheet.</p>}
      {findings.map((f) => (
        <Note key={f.key} finding={f} onWaive={onWaive} />
      ))}
    </aside>
  );
}

function placeNotes(aside: HTMLElement, root: HTMLElement): void {
  const wide = matchMedia(WIDE).matches;
  const notes = [...aside.querySelectorAll<HTMLElement>("article")];
  if (!wide) {
    notes.forEach((n) => (n.style.top = ""));
    root.style.minHeight = "";
    return;
  }
  const top = root.getBoundingClientRect().top;
  const anchorOf = (note: HTMLElement): DOMRect => {
    const field = root.querySelector<HTMLElement>(`[data-field="${note.dataset.at}"]`);
    const shown =
      field && field.offsetParent !== null
        ? field
        : root.querySelector<HTMLElement>(`[data-zone-head="${note.dataset.zone}"]`);
    return (shown ?? root).getBoundingClientRect();
  };
  let bottom = 0;
  notes
    .map((note) => ({ note, anchor: anchorOf(note) }))
    .sort((a, b) => a.anchor.top - b.anchor.top)
    .forEach(({ note, anchor }) => {
      const wanted = anchor.top - top;
      const y = Math.max(wanted, bottom);
      note.style.top = `${y}px`;
      // Until it has its place a note is not shown: before that they would lie on one another.
      note.style.visibility = "visible";
      bottom = y + note.offsetHeight + GAP;
      const middle = wanted + Math.min(anchor.height / 2, 14);
      aside
        .querySelector(`[data-leader="${note.dataset.label}"]`)
        ?.setAttribute("d", `M28 ${middle} H38 L48 ${y + 12} H56`);
    });
  root.style.minHeight = `${bottom}px`;
}

function Note({ finding, onWaive }: { finding: PlacedFinding; onWaive: (finding: PlacedFinding) => void }) {
  const [open, setOpen] = useState(false);
  const { waiver, severity } = finding;
  // A note keeps to one line until somebody asks: cautions and stops stay level with what they are about.
  const brief = severity === "note" && !open && !waiver && !finding.ended;
  const struck = waiver ? "line-through decoration-1 opacity-80" : "";
  return (
    <article
      id={finding.label}
      tabIndex={-1}
      data-at={finding.at}
      data-zone={finding.zone}
      data-label={finding.label}
      className={`mb-3 border-l-2 bg-base-100 pr-2 pl-2.5 target:bg-base-200 sheet:invisible sheet:absolute sheet:right-3 sheet:left-4 sheet:mb-0 ${SEVERITY_RULE[severity]}`}
    >
      <h3 className={`flex items-center gap-1.5 leading-5 ${SEVERITY_TEXT[severity]}`}>
        <Signal severity={severity} />
        <span className="value font-semibold">{finding.label}</span>
        <span className="font-semibold">{severity}</span>
        {brief ? (
          <button
            type="button"
            className="truncate text-base-content underline decoration-dotted underline-offset-4"
            aria-expanded={false}
            title={finding.says}
            onClick={() => setOpen(true)}
          >
            {finding.title}
          </button>
        ) : (
          <span className="truncate text-base-content">{finding.title}</span>
        )}
      </h3>
      {!brief && <p className={`leading-snug [overflow-wrap:anywhere] ${struck}`}>{finding.says}</p>}
      {waiver && (
        <p className="leading-snug">
          Waived: {waiver.reason}{" "}
          <span className="quiet">
            – {waiver.by}, {waiver.at.slice(0, 10)}
          </span>
        </p>
      )}
      {finding.ended && (
        <p className="leading-snug">
          <strong>A waiver has ended</strong>, since what it was given for has changed: {finding.ended.reason}{" "}
          <span className="quiet">
            – {finding.ended.by}, {finding.ended.at.slice(0, 10)}
          </span>
        </p>
      )}
      {!brief && (
        <button
          type="button"
          className="link quiet text-[0.86rem]"
          aria-expanded={open}
          onClick={() => setOpen(!open)}
        >
          {open ? "fold" : "what to do, and why"}
        </button>
      )}
      {open && (
        <div className="mt-1 space-y-1 pb-1 leading-snug">
          <p>
            <span className="label">Do </span>
            {finding.remedy}
          </p>
          {finding.evidence.length > 0 && (
            <dl className="grid grid-cols-[auto_1fr] gap-x-2 text-[0.9rem]">
              {finding.evidence.map((e) => (
                <div key={e.what + e.value} className="contents">
                  <dt className="quiet">{e.what}</dt>
                  <dd>
                    <span className="value [overflow-wrap:anywhere]">{e.value}</span>{" "}
                    <span className="quiet">({e.source})</span>
                  </dd>
                </div>
              ))}
            </dl>
          )}
          {!waiver &&
            (finding.waivable ? (
              <button type="button" className="btn text-[0.86rem]" onClick={() => onWaive(finding)}>
                Set aside with a reason
              </button>
            ) : (
              <p className="quiet">This stop protects data; no reason sets it aside.</p>
            ))}
        </div>
      )}
    </article>
  );
}
