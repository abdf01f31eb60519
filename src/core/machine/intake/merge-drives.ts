import type { MachineDocument } from "../facts/document";
import { driveSchema, type DriveContent } from "../facts/drive";
import { driveIdentity, findDrive, plainWwn, trueSerial, type ObservedDrive } from "../facts/identity";
import { contentsOf } from "./complete";
import type { Item } from "./lists";
import { note, type DriveFinder, type Merge } from "./merging";

const isAnonymous = (drive: ObservedDrive): boolean => drive.id?.startsWith("?") ?? false;
const isIdentified = (drive: ObservedDrive): boolean =>
  Boolean((drive.id && !isAnonymous(drive)) || drive.serial || drive.wwn);

/** Drives by what they are found by: thousands of them are looked up in one step each. */
class Index {
  private readonly drives = new Map<string, Set<Item>>();

  private static keysOf(drive: ObservedDrive): string[] {
    const serial = trueSerial(drive);
    return [
      `id ${driveIdentity(drive)}`,
      ...(serial === null ? [] : [`serial ${serial}`]),
      ...(drive.wwn ? [`wwn ${plainWwn(drive.wwn)}`] : []),
      ...(drive.seenAs ? [`name ${drive.seenAs}`] : []),
    ];
  }

  keep(drive: ObservedDrive & Item): void {
    const size = drive.sizeBytes ? [`size ${drive.sizeBytes}`] : [];
    for (const key of [...Index.keysOf(drive), ...size])
      this.drives.set(key, (this.drives.get(key) ?? new Set()).add(drive));
  }

  /** Drives of one size, in which case nothing else has to tell them apart. */
  ofSize(bytes: number): ReadonlySet<Item> {
    return this.drives.get(`size ${bytes}`) ?? new Set();
  }

  /** All that could be meant by an observation; who it is, is decided by identity.ts. */
  like(observed: ObservedDrive): Item[] {
    return [...new Set(Index.keysOf(observed).flatMap((key) => [...(this.drives.get(key) ?? [])]))];
  }
}

/** Finds out which drive a reading speaks of, and what its words mean for that drive. One for each import. */
export class DriveMerge implements DriveFinder {
  private readonly index = new Index();
  /** Drives by the names they have in this very import: names mean nothing beyond it. */
  private readonly named = new Set<Item>();
  /** Drives that the reading which is being laid has shown, and how many of its drives have one size. */
  private readonly laid = new Set<Item>();
  private readonly alike = new Map<number, number>();

  constructor(private readonly document: MachineDocument) {
    for (const drive of document.facts.drives) this.index.keep(drive);
  }

  identityOf(observed: ObservedDrive): string {
    return driveIdentity(observed);
  }

  /** Before the drives of one reading are laid: how many of them have one size, since size alone may have to tell them. */
  begin(observed: readonly ObservedDrive[]): void {
    this.laid.clear();
    this.alike.clear();
    for (const { sizeBytes = 0 } of observed) this.alike.set(sizeBytes, (this.alike.get(sizeBytes) ?? 0) + 1);
  }

  /** The drive that is meant; undefined for one that is new; null when it is not told which, which is then remarked. */
  find(m: Merge, observed: ObservedDrive): Item | undefined | null {
    const like = this.index.like(observed);
    const same = findDrive<Item>(like, observed, (d) => this.named.has(d));
    if (same) return same;
    if (isIdentified(observed)) return this.firstIdentified(m, like, observed);
    const { seenAs, bay, sizeBytes } = observed;
    if (!sizeBytes || !seenAs) {
      m.remarks.push(
        seenAs
          ? `${m.source.tool} reports ${seenAs}, a device name that can change. Import the output of lsblk from the same time with it to identify the drive.`
          : `${m.source.tool} reports a drive${bay ? ` in bay ${bay}` : ""} without serial number, WWN and device name, so it cannot be identified.`,
      );
      return null;
    }
    const there = [...this.index.ofSize(sizeBytes)].filter(
      (d) =>
        d.sizeBytes === sizeBytes &&
        !d.missingSince &&
        !this.laid.has(d) &&
        (!bay || !d.bay || d.bay === bay),
    );
    const nameless = like.find((d) => d.id === driveIdentity(observed));
    // Nothing else has this size, here or there; or neither side knows more than a name.
    if (this.alike.get(sizeBytes) === 1 && there.length < 2) return there[0] ?? nameless;
    if (there.every(isAnonymous)) return there.find((d) => d.seenAs === seenAs) ?? nameless;
    m.remarks.push(
      `${m.source.tool} reports ${seenAs} without serial number and WWN, and ${there.length === 1 ? "one drive" : `${there.length} drives`} of this machine ${there.length === 1 ? "has" : "have"} its size. It cannot be identified, so its data was skipped. ${REMEDY}`,
    );
    return null;
  }

  /** A drive that so far was only a name and a size, and now has an identity. */
  private firstIdentified(m: Merge, like: readonly Item[], observed: ObservedDrive): Item | undefined {
    const known = like.find(
      (d) =>
        isAnonymous(d) &&
        !d.missingSince &&
        d.seenAs === observed.seenAs &&
        d.sizeBytes === observed.sizeBytes,
    );
    if (!known) return undefined;
    const [from, to] = [String(known.id), driveIdentity(observed)];
    known.id = to;
    note(m, `drives.${to}.id`, from, to, "changed");
    const { sources, disputes, typed } = this.document;
    for (const field of FIELDS) {
      renamed(sources, `drives.${from}.${field}`, `drives.${to}.${field}`);
      renamed(disputes, `drives.${from}.${field}`, `drives.${to}.${field}`);
    }
    renamed(typed.placed, from, to);
    for (const member of this.document.facts.sets.flatMap((s) => s.members))
      if (member.drive === from) member.drive = to;
    return known;
  }

  /** What is told of a drive, with what stands on it put together from what is known and what is new. */
  told(target: Item, { signatures, ...observed }: Item): Item {
    const known: DriveContent[] = Array.isArray(target.contents) ? target.contents : [];
    if (Array.isArray(signatures)) return { ...observed, ...signed(target, known, observed, signatures) };
    const { contents, seenAs } = observed;
    if (!Array.isArray(contents)) return observed;
    const name = String(seenAs ?? target.seenAs);
    return {
      ...observed,
      contents: contentsOf({ contents: known, name: String(target.seenAs ?? name) }, contents, name),
    };
  }

  keep(target: Item, observed: ObservedDrive): void {
    this.laid.add(target);
    if (observed.seenAs) this.named.add(target);
    this.index.keep(target);
  }
}

const REMEDY = "Run lsblk -J -b -O, which prints them.";

const FIELDS = Object.keys(driveSchema.shape);

function renamed(record: Record<string, unknown>, from: string, to: string): void {
  if (!Object.hasOwn(record, from)) return;
  record[to] = record[from];
  delete record[from];
}

/** A tool that only knows signatures adds to the contents that another has told, and never takes from them. */
function signed(
  target: Item,
  known: readonly DriveContent[],
  observed: ObservedDrive,
  signatures: readonly DriveContent[],
): ObservedDrive {
  const contents = [...known];
  for (const found of signatures) {
    const at = contents.findIndex((c) => c.part === found.part);
    const old = contents[at];
    if (!old) contents.push(found);
    else if (old.kind === "unknown content") contents[at] = { ...old, kind: found.kind, label: found.label };
    else if (old.partUuid === undefined && found.partUuid)
      contents[at] = { ...old, partUuid: found.partUuid };
  }
  const before: string[] = Array.isArray(target.memberOf) ? target.memberOf : [];
  return { contents, memberOf: [...new Set([...before, ...(observed.memberOf ?? [])])] };
}
