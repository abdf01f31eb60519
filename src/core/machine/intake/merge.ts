import { machineDocumentSchema, type Claim, type FactSource, type MachineDocument } from "../facts/document";
import type { Drive, DriveContent } from "../facts/drive";
import { agree, better, isDisputable } from "./disputes";
import { driveIdentity, driveNamed, findDrive, type ObservedDrive } from "../facts/identity";
import type { DriveSet } from "../facts/facts";
import type { TakenReading } from "./intake";

/** One fact that an import would change. `kind` tells a first word from a different one. */
export interface FactChange {
  path: string;
  before: unknown;
  after: unknown;
  kind: "new" | "changed" | "gone" | "back";
  source: FactSource;
}

type Bag = Record<string, unknown>;

/** Lists of facts and the key that names an item. Items of the brief ones carry one source for the whole item. */
const LISTS = {
  drives: { key: "id", brief: false },
  ports: { key: "mac", brief: false },
  pci: { key: "slot", brief: true },
  sets: { key: "id", brief: true },
  storageControllers: { key: "id", brief: true },
  sensors: { key: "id", brief: true },
  powerSupplies: { key: "id", brief: true },
} as const;
type ListName = keyof typeof LISTS;
const isList = (group: string): group is ListName => group in LISTS;
const same = (a: unknown, b: unknown): boolean =>
  a === b || (typeof a === "object" && typeof b === "object" && JSON.stringify(a) === JSON.stringify(b));

/**
 * Lays readings over a machine's document. A tool that does not know a value (null, absent) never erases one that
 * another tool told. Drives are matched by serial or WWN (see identity.ts), ports by MAC, PCI functions by place. A
 * drive that a complete listing does not show any more stays, marked with the time; other lists forget what is gone.
 * Where two tools give different values for one fact, the later one stands and the other is kept as a dispute; a bay
 * that a person gave stands against every import. Pure: the given document is untouched.
 */
export function mergeReadings(
  document: MachineDocument,
  readings: readonly TakenReading[],
  at: string,
): { document: MachineDocument; changes: FactChange[]; remarks: string[] } {
  const remarks: string[] = [];
  const next = structuredClone(document) as MachineDocument & { facts: Bag };
  const changes: FactChange[] = [];
  /** Drives by the names they have in this very reading of the machine: names mean nothing beyond it. */
  const named = new Map<Bag, string>();
  for (const { tool, from, reading } of readings) {
    const source: FactSource = { tool, from: from.slice(0, 400), at };
    const note = (path: string, before: unknown, after: unknown, kind?: FactChange["kind"]): void => {
      if (same(before, after)) return;
      const isNew = before === undefined || before === null || same(before, []);
      changes.push({ path, before, after, kind: kind ?? (isNew ? "new" : "changed"), source });
    };
    const layOver = (target: Bag, observed: Bag, prefix: string, brief = false): void => {
      for (const [key, given] of Object.entries(observed)) {
        if (given === undefined || given === null) continue;
        const path = `${prefix}.${key}`;
        if (key === "bay" && holdsBay(next, target, given, path, source)) continue;
        const value = isDisputable(path) ? settle(next, path, target[key], given, source) : given;
        note(path, target[key], value);
        if (!brief) next.sources[path] = source;
        target[key] = value;
      }
      if (brief) next.sources[prefix] = source;
    };
    for (const [group, value] of Object.entries(reading.facts)) {
      if (isList(group)) mergeList(group, value as Bag[]);
      else if (Array.isArray(value)) {
        note(group, next.facts[group], value);
        next.sources[group] = source;
        next.facts[group] = value;
      } else layOver((next.facts[group] ??= {}) as Bag, value as Bag, group);
    }

    /** Ties the members of a set to drives while their names still mean them. */
    function withDrives(set: Bag): Bag {
      if (!Array.isArray(set.members)) return set;
      const members = (set.members as DriveSet["members"]).map((m) => ({
        ...m,
        drive: m.drive ?? driveNamed(next.facts.drives as Drive[], m.name)?.id ?? null,
      }));
      return { ...set, members };
    }

    function mergeList(group: ListName, observed: Bag[]): void {
      const { key, brief } = LISTS[group];
      const existing = (next.facts[group] ??= []) as Bag[];
      const seen = new Set<Bag>();
      for (const item of observed) {
        let target =
          group === "drives"
            ? (findDrive(existing as ObservedDrive[], item, (d) => named.has(d)) as Bag | undefined)
            : existing.find((e) => e[key] === item[key]);
        if (!target && group === "drives" && !isIdentified(item)) {
          remarks.push(
            `${tool} speaks of ${String(item.seenAs)}, a name that moves; drop lsblk of the same moment with it, then it is known which drive that was.`,
          );
          continue;
        }
        if (!target)
          existing.push((target = { [key]: group === "drives" ? driveIdentity(item) : item[key] }));
        const path = `${group}.${String(target[key])}`;
        if (target.missingSince) {
          note(`${path}.missingSince`, target.missingSince, null, "back");
          target.missingSince = null;
        }
        const told =
          group === "drives" ? withSignatures(target, item) : group === "sets" ? withDrives(item) : item;
        layOver(target, { ...told, [key]: target[key] }, path, brief);
        if (group === "drives") named.set(target, String(item.seenAs ?? ""));
        seen.add(target);
      }
      if (group === "ports" || !reading.complete?.[group]) return;
      const gone = existing.filter((e) => !seen.has(e) && !e.missingSince);
      for (const item of gone) {
        const path = `${group}.${String(item[key])}`;
        if (group !== "drives") {
          note(path, item, null, "gone");
          delete next.sources[path];
          continue;
        }
        item.missingSince = at;
        next.sources[`${path}.missingSince`] = source;
        note(`${path}.missingSince`, null, at, "gone");
      }
      if (group !== "drives") next.facts[group] = existing.filter((e) => !gone.includes(e)) as never;
    }
  }
  const filled = fillDefaults(next);
  const joined = readings.some((r) => r.reading.facts.sets);
  if (joined) joinSets(filled);
  const shown = joined ? changes.map((c) => withMemberships(c, filled)) : changes;
  return { document: filled, changes: collapse(shown), remarks };
}

const isIdentified = (item: Bag): boolean => Boolean(item.id || item.serial || item.wwn);

/** A tool that only knows signatures adds to the contents that another has told, and never takes from them. */
function withSignatures(target: Bag, { signatures, ...item }: Bag): Bag {
  if (!Array.isArray(signatures)) return item;
  const contents = [...((target.contents as DriveContent[] | null | undefined) ?? [])];
  for (const found of signatures as DriveContent[]) {
    const at = contents.findIndex((c) => c.part === found.part);
    const known = contents[at];
    if (!known) contents.push(found);
    else if (known.kind === "unknown content")
      contents[at] = { ...known, kind: found.kind, label: found.label };
    else if (known.partUuid === undefined && found.partUuid)
      contents[at] = { ...known, partUuid: found.partUuid };
  }
  const memberOf = [
    ...new Set([...((target.memberOf as string[]) ?? []), ...((item.memberOf as string[]) ?? [])]),
  ];
  return { ...item, contents, memberOf };
}

/** The value that stands when a tool says something about a fact that another has told; the other is kept as a dispute. */
function settle(
  next: MachineDocument,
  path: string,
  old: unknown,
  given: unknown,
  source: FactSource,
): unknown {
  const oldSource = next.sources[path];
  const claims = (next.disputes[path] ?? []).filter((c) => c.source.tool !== source.tool);
  const isAnother = old !== null && old !== undefined && oldSource && oldSource.tool !== source.tool;
  const value = isAnother && agree(path, old, given) ? better(old, given) : given;
  if (isAnother && !agree(path, old, given)) claims.push({ value: old, source: oldSource });
  keepClaims(
    next,
    path,
    claims.filter((c) => !agree(path, c.value, value)),
  );
  return value;
}

function keepClaims(next: MachineDocument, path: string, claims: Claim[]): void {
  if (claims.length > 0) next.disputes[path] = claims;
  else delete next.disputes[path];
}

/** What a drive belongs to is told by two kinds of tools; the change that is shown goes to their sum. */
function withMemberships(change: FactChange, { facts }: MachineDocument): FactChange {
  if (!change.path.endsWith(".memberOf")) return change;
  const drive = facts.drives.find((d) => change.path === `drives.${d.id}.memberOf`);
  return drive ? { ...change, after: drive.memberOf } : change;
}

/** A bay that was given by hand stands; what the tool called it is kept beside. */
function holdsBay(
  next: MachineDocument,
  drive: Bag,
  given: unknown,
  path: string,
  source: FactSource,
): boolean {
  const placed = next.typed.placed[String(drive.id)];
  if (placed === undefined) return false;
  const others = (next.disputes[path] ?? []).filter((c) => c.source.tool !== source.tool);
  keepClaims(next, path, placed === given ? others : [...others, { value: given, source }]);
  return true;
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
      pci: (pci ?? []).map((p) => ({ ...UNSEEN_PCI, ...p })),
    },
  });
}

/** Tells each drive what it belongs to, and which drives are no drives but sets that a controller shows. */
function joinSets({ facts }: MachineDocument): void {
  for (const set of facts.sets) {
    for (const member of set.members) {
      const drive = facts.drives.find((d) => d.id === member.drive);
      if (drive && !drive.memberOf.includes(set.id)) drive.memberOf.push(set.id);
    }
    // A set that a controller shows as one drive carries the same WWN as that drive.
    const shown = set.kind === "virtual drive" && facts.drives.find((d) => isShownAs(d, set.wwn, set.name));
    if (shown) shown.presentedBy = set.name;
  }
}

const isShownAs = (drive: Drive, wwn: string | null, name: string): boolean =>
  (wwn !== null && drive.wwn !== null && findDrive([drive], { wwn }, () => false) === drive) ||
  (wwn === null && drive.model === name);

/** A fact that a person typed: recorded with its own source, so that an import can be told from it. */
export function typeFact(
  document: MachineDocument,
  group: "chassis" | "controller",
  values: Bag,
  at: string,
  by: string,
): MachineDocument {
  const next = structuredClone(document) as MachineDocument & { facts: Bag };
  const target = (next.facts[group] ??= {}) as Bag;
  for (const [key, value] of Object.entries(values)) {
    if (same(target[key] ?? null, value)) continue;
    target[key] = value;
    next.sources[`${group}.${key}`] = { tool: "typed", from: by, at };
  }
  return machineDocumentSchema.parse(next);
}

/** Puts a drive into a bay by hand (or, with null, takes that back): it stays there by its identity. */
export function placeDrive(
  document: MachineDocument,
  driveId: string,
  bay: string | null,
  at: string,
  by: string,
): MachineDocument {
  const next = structuredClone(document);
  const drive = next.facts.drives.find((d) => d.id === driveId);
  if (!drive) return next;
  const path = `drives.${driveId}.bay`;
  if (bay === null) {
    delete next.typed.placed[driveId];
    drive.bay = (next.disputes[path]?.at(-1)?.value as string | undefined) ?? null;
    delete next.disputes[path];
    delete next.sources[path];
    return next;
  }
  const other = next.facts.drives.find((d) => d.id !== driveId && d.bay === bay && d.missingSince === null);
  if (other) {
    other.bay = null;
    delete next.typed.placed[other.id];
  }
  next.typed.placed[driveId] = bay;
  drive.bay = bay;
  next.sources[path] = { tool: "typed", from: by, at };
  return next;
}
