"use client";

import { useEffect, useMemo, useRef, useState, type RefObject } from "react";
import { foldFindings, type FindingGroup, type PlacedFinding, type Zone } from "@/core/finding";
import { SEVERITY_TEXT } from "../frame/signal";
import { useCharacter, useKeys } from "../frame/use-keys";
import { Note, type NoteActs } from "./note";
import { placesOf } from "./places";
import { useNamed } from "./use-named";

const GAP = 10;
/** Below the edge of the frame. */
const TOP = 10;
const WIDE = "(min-width: 56rem)";
const WEIGHT: Readonly<Record<string, number>> = { stop: 10_000, caution: 8, note: 1 };

interface Props {
  findings: readonly PlacedFinding[];
  sheet: RefObject<HTMLElement | null>;
  layoutKey: string;
  drawer: boolean;
  isOpen: (zone: Zone) => boolean;
  acts: NoteActs;
}

/**
 * The margin: stops stand level with the fields that they are about, cautions as near as they can, and what asks nobody to
 * do anything is one line a zone. A thin leader goes from a stop to its field, and from what is pointed at. In a narrow
 * window it is a drawer with the same notes in the same order.
 */
export function Margin({ findings, sheet, layoutKey, drawer, isOpen, acts }: Props) {
  const ref = useRef<HTMLElement>(null);
  const groups = useMemo(() => foldFindings(findings), [findings]);
  useNamed(ref);
  useSteps(ref);
  const held = useRef<number | null>(null);
  useHeld(ref, held, findings);
  useEffect(() => {
    const aside = ref.current;
    const root = sheet.current;
    if (!aside || !root) return;
    // What begins to be observed is told at once, when all is laid out and nothing painted: asked for here, it would be laid
    // out once more.
    const observer = new ResizeObserver(() => placeNotes(aside, root));
    observer.observe(root);
    // Notes may make the sheet higher than its zones are: it then stays as it is when a zone grows, and fields move.
    root.querySelectorAll("[id^=zone-]").forEach((zone) => observer.observe(zone));
    aside.querySelectorAll("article").forEach((note) => observer.observe(note));
    return () => observer.disconnect();
  }, [groups, sheet, layoutKey, drawer]);
  const holding = useMemo(() => {
    const onCure = (finding: PlacedFinding): void => {
      held.current = entriesOf(ref.current).findIndex((e) => e.contains(document.activeElement));
      acts.onCure?.(finding);
    };
    return { ...acts, onCure };
  }, [acts]);

  return (
    <aside
      ref={ref}
      data-margin
      aria-label="Findings panel"
      className={`sheet:absolute sheet:inset-y-0 sheet:right-0 sheet:block sheet:w-[21rem] sheet:bg-transparent sheet:shadow-none ${drawer ? "fixed inset-y-0 right-0 z-40 block w-[min(22rem,92vw)] overflow-y-auto border-l bg-base-100 p-3 pt-14 shadow-xl sheet:overflow-visible sheet:border-l sheet:p-0" : "hidden border-l"} border-base-300`}
    >
      <Leaders groups={groups} margin={ref} sheet={sheet} />
      {findings.length === 0 && <p className="quiet p-3">No findings.</p>}
      {groups.map((g) => (
        <div
          key={g.key}
          className="sheet:invisible sheet:absolute sheet:right-3 sheet:left-4"
          data-place={g.key}
        >
          <Note group={g} acts={holding} isBrief={!isOpen(g.zone)} />
        </div>
      ))}
    </aside>
  );
}

/** The thin lines. They alone are drawn anew when something else is pointed at. */
function Leaders({
  groups,
  margin,
  sheet,
}: {
  groups: readonly FindingGroup[];
  margin: RefObject<HTMLElement | null>;
  sheet: RefObject<HTMLElement | null>;
}) {
  const pointed = usePointed(margin, sheet);
  return (
    <svg
      aria-hidden="true"
      className="pointer-events-none absolute top-0 -left-10 hidden h-full w-14 overflow-visible sheet:block"
      fill="none"
    >
      {groups.map((g) => {
        const isPointed = pointed === g.key || g.findings.some((f) => f.at === pointed);
        return (
          <path
            key={g.key}
            data-leader={g.key}
            stroke="currentColor"
            className={`${SEVERITY_TEXT[g.severity]} ${g.severity === "stop" || isPointed ? "" : "hidden"}`}
            strokeWidth={isPointed ? 2 : 1}
          />
        );
      })}
    </svg>
  );
}

const entriesOf = (root: HTMLElement | null): HTMLElement[] => [
  ...(root?.querySelectorAll<HTMLElement>("[data-entry]") ?? []),
];

/** What is pointed at: an entry of the margin by its key, or a field by its path. */
function usePointed(margin: RefObject<HTMLElement | null>, sheet: RefObject<HTMLElement | null>): string {
  const [pointed, setPointed] = useState("");
  useEffect(() => {
    const root = sheet.current;
    const point = (e: Event): void => {
      const on = e.target instanceof Element ? e.target : null;
      const entry = on?.closest<HTMLElement>("[data-entry]");
      const field = on?.closest<HTMLElement>("[data-field]");
      if (entry || field) setPointed(entry?.dataset.entry ?? field?.dataset.field ?? "");
      else if (e.type === "pointerover" && !margin.current?.contains(document.activeElement)) setPointed("");
    };
    root?.addEventListener("pointerover", point);
    root?.addEventListener("focusin", point);
    return () => {
      root?.removeEventListener("pointerover", point);
      root?.removeEventListener("focusin", point);
    };
  }, [margin, sheet]);
  return pointed;
}

/** Once a finding is done away with, the keys are not lost: the entry that stands in its place (`held`) has them then. */
function useHeld(
  margin: RefObject<HTMLElement | null>,
  heldRef: RefObject<number | null>,
  findings: readonly PlacedFinding[],
): void {
  useEffect(() => {
    if (heldRef.current === null || document.activeElement !== document.body) return;
    const entries = entriesOf(margin.current);
    entries[Math.min(heldRef.current, entries.length - 1)]?.focus({ preventScroll: true });
    heldRef.current = null;
  }, [margin, heldRef, findings]);
}

/** The keys of the margin: from entry to entry, what to do about it, and its cure. */
function useSteps(margin: RefObject<HTMLElement | null>): void {
  const step = (by: 1 | -1): void => {
    const entries = entriesOf(margin.current);
    const here = entries.findIndex((e) => e.contains(document.activeElement));
    const from = here < 0 ? (by > 0 ? -1 : 0) : here;
    const next = entries[(from + by + entries.length) % entries.length];
    const go = (): void => {
      next?.focus();
      next?.scrollIntoView({ block: "center" });
    };
    go();
    // An entry that has no place yet is not shown, and takes no focus before it has one.
    if (document.activeElement !== next) requestAnimationFrame(go);
  };
  const press = (what: string): void => {
    const entry = document.activeElement?.closest<HTMLElement>("[data-entry]");
    if (!entry || !margin.current?.contains(entry)) return;
    const own = document.activeElement?.closest("li") ?? entry;
    own.querySelector<HTMLButtonElement>(what)?.click();
    // What was pressed may be gone, or elsewhere now: the keys stay with the entry.
    entry.focus();
  };
  useCharacter("]", () => step(1));
  useCharacter("[", () => step(-1));
  useKeys("r", () => press("[data-opens]"));
  useKeys("t", () => press("[data-cure]"));
}

/** Where the field of an entry is, or the head of its zone while that is folded. */
function anchorOf(entry: HTMLElement, root: HTMLElement): DOMRect {
  const field =
    entry.dataset.kind === "quiet"
      ? null
      : root.querySelector<HTMLElement>(`[data-field="${entry.dataset.at}"]`);
  const shown =
    field && field.offsetParent !== null
      ? field
      : root.querySelector<HTMLElement>(`[data-zone-head="${entry.dataset.zone}"]`);
  return (shown ?? root).getBoundingClientRect();
}

/** Zone by zone; in a zone as their fields stand, and the quiet line last. All that is measured is measured here, at once. */
function inOrder(root: HTMLElement, entries: readonly HTMLElement[]) {
  const zones = [...new Set(entries.map((e) => e.dataset.zone))];
  return entries
    .map((entry) => ({
      ...{ entry, anchor: anchorOf(entry, root), height: entry.offsetHeight },
      isQuiet: entry.dataset.kind === "quiet",
    }))
    .toSorted(
      (a, b) =>
        zones.indexOf(a.entry.dataset.zone) - zones.indexOf(b.entry.dataset.zone) ||
        Number(a.isQuiet) - Number(b.isQuiet) ||
        a.anchor.top - b.anchor.top,
    );
}

function placeNotes(aside: HTMLElement, root: HTMLElement): void {
  const entries = entriesOf(aside);
  const box = (entry: HTMLElement): HTMLElement => entry.parentElement!;
  if (!matchMedia(WIDE).matches) {
    entries.forEach((e) => (box(e).style.top = ""));
    root.style.minHeight = "";
    return;
  }
  const top = root.getBoundingClientRect().top;
  const ordered = inOrder(root, entries);
  const places = placesOf(
    ordered.map(({ entry, anchor, height }) => ({
      ...{ top: anchor.top - top - TOP, height },
      weight: WEIGHT[entry.dataset.severity ?? ""] ?? 1,
    })),
    GAP,
  );
  let bottom = 0;
  ordered.forEach(({ entry, anchor, height }, i) => {
    const y = places[i]! + TOP;
    box(entry).style.top = `${y}px`;
    // Until it has its place an entry is not shown: before that they would lie on one another.
    box(entry).style.visibility = "visible";
    bottom = Math.max(bottom, y + height + GAP);
    const middle = anchor.top - top + Math.min(anchor.height / 2, 14);
    aside
      .querySelector(`[data-leader="${CSS.escape(entry.dataset.entry ?? "")}"]`)
      ?.setAttribute("d", `M28 ${middle} H38 L48 ${y + 12} H56`);
  });
  root.style.minHeight = `${bottom}px`;
}
