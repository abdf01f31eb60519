import { isBag } from "../../document";
import { machineDocumentSchema, type MachineDocument } from "../facts/document";
import type { Drive } from "../facts/drive";
import { completed } from "./complete";
import { isDisputable } from "./disputes";
import type { TakenReading } from "./intake";
import { gone, itemsIn, LISTS, type Item, type ListName, type ListRule } from "./lists";
import { DriveMerge } from "./merge-drives";
import { note, same, type FactChange, type Merge } from "./merging";
import { joinSets, membersTied } from "./sets";
import { holdsBay, settle } from "./settle";

/** Facts by group, as the importers give them: the schema looks at them when all have been laid. */
const factsOf = (m: Merge): Item => m.document.facts;

/** What tools print where they do not know: no word against what is known. */
const NOT_TOLD: ReadonlySet<unknown> = new Set([
  undefined,
  null,
  "unknown",
  "(not named)",
  "????",
  "????:????",
]);
const isTold = (value: unknown): boolean => !NOT_TOLD.has(value);

/**
 * Lays readings over a machine's document. A tool that does not know a value (null, absent) never erases one that
 * another tool told, nor does a listing with fewer columns. Drives are matched by serial or WWN (see identity.ts), ports
 * by MAC, PCI functions by place. What a whole listing does not show any more, and showed before, is gone: a drive is
 * marked with the time, other lists forget. Where two tools give different values for one fact, the later one stands and
 * the other is kept as a dispute; a bay that a person gave stands against every import. Pure: the given document is
 * untouched.
 */
export function mergeReadings(
  document: MachineDocument,
  readings: readonly TakenReading[],
  at: string,
): { document: MachineDocument; changes: FactChange[]; remarks: string[] } {
  const next = structuredClone(document);
  const m: Merge = {
    ...{ document: next, at, source: { tool: "", from: "", at }, mayBeCut: false, changes: [], remarks: [] },
    ...{ drives: new DriveMerge(next), seen: new Set(), named: new Map() },
  };
  for (const { tool, from, reading, mayBeCut } of readings) {
    m.source = { tool, from: from.slice(0, 400), at };
    m.mayBeCut = mayBeCut;
    for (const [group, value] of Object.entries(reading.facts)) layGroup(m, group, value);
  }
  for (const { tool, from, reading, mayBeCut } of readings) {
    m.source = { tool, from: from.slice(0, 400), at };
    m.mayBeCut = mayBeCut;
    for (const [group, whole] of Object.entries(reading.complete ?? {}))
      if (whole && isList(group)) forget(m, group);
  }
  const filled = fillDefaults(next);
  if (readings.some((r) => r.reading.facts.sets)) joinSets(filled);
  const drives = new Map(filled.facts.drives.map((d) => [`drives.${d.id}.memberOf`, d]));
  const shown = m.changes.map((c) => withMemberships(c, drives));
  return { document: filled, changes: collapse(shown), remarks: m.remarks };
}

const isList = (group: string): group is ListName => Object.hasOwn(LISTS, group);

function layGroup(m: Merge, group: string, value: unknown): void {
  const facts = factsOf(m);
  if (isList(group)) {
    if (group === "drives") m.drives.begin(itemsIn(value));
    for (const item of itemsIn(value)) layItem(m, group, item);
  } else if (Array.isArray(value)) {
    const list = wholeOf(m, group, value, facts[group]);
    note(m, group, facts[group], list);
    m.document.sources[group] = m.source;
    facts[group] = list;
  } else if (isBag(value)) {
    const known = facts[group];
    layOver(m, isBag(known) ? known : (facts[group] = {}), value, group);
  }
}

/** Lays what is told over what is known, field by field; of brief lists one source stands for the whole item. */
function layOver(m: Merge, target: Item, observed: Item, prefix: string, brief = false): void {
  for (const [key, given] of Object.entries(observed)) {
    if (!isTold(given) && (given === undefined || given === null || isTold(target[key]))) continue;
    const path = `${prefix}.${key}`;
    if (key === "bay" && holdsBay(m, target, given, path)) continue;
    const old = target[key];
    const told = isDisputable(path) ? settle(m, path, old, given) : completed(path, old, given);
    const value = wholeOf(m, path, told, old);
    note(m, path, old, value);
    if (!brief) m.document.sources[path] = m.source;
    target[key] = value;
  }
  if (brief) m.document.sources[prefix] = m.source;
}

/** A list as it is known, where a text that may be cut off shows its first part only. */
function wholeOf(m: Merge, path: string, given: unknown, known: unknown): unknown {
  if (!m.mayBeCut || !Array.isArray(given) || !Array.isArray(known) || !isBeginning(given, known))
    return given;
  const [shown, all] = [given.length, known.length];
  m.remarks.push(
    `${m.source.tool} reports the first ${shown} of ${all} known items (${path}): the text may be truncated, so the others are kept. The bundle of a collector shows where it ends.`,
  );
  return known;
}

/** Whether a list is the first part of a longer one: so it looks when the text was cut between two lines. */
const isBeginning = (list: readonly unknown[], known: readonly unknown[]): boolean =>
  list.length < known.length && list.every((item, i) => same(item, known[i]));

/** The items of a list by what names them. */
function itemsOf(m: Merge, group: ListName): { list: Item[]; named: Map<unknown, Item> } {
  const facts = factsOf(m);
  const known = facts[group];
  const list: Item[] = Array.isArray(known) ? known : (facts[group] = []);
  const named = m.named.get(group) ?? new Map(list.map((e) => [e[LISTS[group].key], e]));
  m.named.set(group, named);
  return { list, named };
}

function layItem(m: Merge, group: ListName, observed: Item): void {
  const { key, brief, another }: ListRule = LISTS[group];
  const { list, named } = itemsOf(m, group);
  let target = group === "drives" ? m.drives.find(m, observed) : named.get(observed[key]);
  if (target === null) return;
  if (!target) {
    target = { [key]: group === "drives" ? m.drives.identityOf(observed) : observed[key] };
    list.push(target);
    named.set(target[key], target);
  }
  const path = `${group}.${String(target[key])}`;
  if (
    another &&
    isTold(observed[another]) &&
    isTold(target[another]) &&
    observed[another] !== target[another]
  )
    // Another device in the same place: nothing of the former is true of it.
    for (const field of Object.keys(target)) if (field !== key) delete target[field];
  if (target.missingSince) {
    note(m, `${path}.missingSince`, target.missingSince, null, "back");
    target.missingSince = null;
  }
  const told =
    group === "drives"
      ? m.drives.told(target, observed)
      : group === "sets"
        ? membersTied(m.document.facts.drives, observed)
        : observed;
  layOver(m, target, { ...told, [key]: target[key] }, path, brief);
  if (group === "drives") m.drives.keep(target, observed);
  m.seen.add(target);
}

/** What a whole listing does not show, although it or its like did before, is gone. */
function forget(m: Merge, group: ListName): void {
  const { key, whenGone } = LISTS[group];
  if (whenGone === "kept") return;
  const { list, named } = itemsOf(m, group);
  const unseen = list.filter((e) => !m.seen.has(e) && !e.missingSince);
  if (unseen.length === 0) return;
  const left = gone(m.document, group, unseen, m.source.tool);
  const last = list.findLastIndex((e) => m.seen.has(e));
  if (m.mayBeCut && left.length > 0 && left.every((e) => list.indexOf(e) > last)) {
    m.remarks.push(
      `${m.source.tool} ends before ${left.length} items that it reported before (${String(left[0]?.[key])} and later): the text may be truncated, so none is treated as removed. The bundle of a collector shows where it ends.`,
    );
    return;
  }
  for (const item of left) {
    const path = `${group}.${String(item[key])}`;
    if (whenGone === "marked") {
      item.missingSince = m.at;
      m.document.sources[`${path}.missingSince`] = m.source;
      note(m, `${path}.missingSince`, null, m.at, "gone");
      continue;
    }
    note(m, path, item, null, "gone");
    delete m.document.sources[path];
    named.delete(item[key]);
  }
  if (whenGone === "forgotten") factsOf(m)[group] = list.filter((e) => !left.includes(e));
}

/** What a drive belongs to is told by two kinds of tools; the change that is shown goes to their sum. */
function withMemberships(change: FactChange, drives: ReadonlyMap<string, Drive>): FactChange {
  const drive = drives.get(change.path);
  return drive ? { ...change, after: drive.memberOf } : change;
}

/** Later readings of one import may refine an earlier one: the person sees one line from first state to last. */
function collapse(changes: FactChange[]): FactChange[] {
  const byPath = new Map<string, FactChange>();
  for (const change of changes) {
    const first = byPath.get(change.path);
    byPath.set(change.path, first ? { ...change, before: first.before, kind: first.kind } : change);
  }
  return [...byPath.values()].filter((c) => !same(c.before, c.after));
}

const UNSEEN_DRIVE = { sizeBytes: 0, media: "unknown", seenAs: "?" };
const UNSEEN_PORT = { kind: "ethernet", link: "unknown", seenAs: "?" };
const UNSEEN_PCI = {
  className: "(not named)",
  classId: "????",
  maker: "(not named)",
  device: "(not named)",
  ids: "????:????",
};

function fillDefaults(document: MachineDocument): MachineDocument {
  const { drives, ports, pci } = document.facts;
  return machineDocumentSchema.parse({
    ...document,
    facts: {
      ...document.facts,
      drives: drives.map((d) => ({ ...UNSEEN_DRIVE, ...d })),
      ports: ports.map((p) => ({ ...UNSEEN_PORT, ...p })),
      pci: pci.map((p) => ({ ...UNSEEN_PCI, ...p })),
    },
  });
}
