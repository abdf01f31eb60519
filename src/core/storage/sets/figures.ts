import { fail, ok, type Result } from "../../result";
import type { Drive } from "../../machine";
import { candidateOf, type Candidate } from "../bench/candidate";
import { mdShape, poolPartition, poolShapes } from "../bench/capacity";
import type { Layout } from "../bench/layout";
import { mdFault } from "../md";
import { CLASS_NAMES, CLASSES, type ClassName } from "../bench/classes";
import type { Question } from "../bench/question";
import { poolFigures, vdevFigures, vdevShape, type VdevShape } from "../zfs";
import { layoutOf } from "./layout";
import type { PlannedSet } from "./planned";

/** A planned set with its drives, all that follows from its layout, and what it was asked with. */
export interface SetFigures {
  candidate: Candidate;
  question: Question;
  /** Members, then spares. */
  sizes: number[];
  /** Chance that data are lost within five years, its special devices counted in: with them the pool is lost. */
  loss: number;
  /** What its own tool will call its size: of a pool with parity, else what can be used. */
  toldBytes: number;
}

/** The kind that most of the drives are of; cards, sticks and what is not known count as flash. */
export function classOfDrives(drives: readonly Pick<Drive, "media">[]): ClassName {
  const counts = CLASS_NAMES.map((name) => drives.filter((d) => d.media === name).length);
  const most = Math.max(...counts);
  return most === 0 ? "flash" : CLASS_NAMES[counts.indexOf(most)]!;
}

/** How full a pool is taken to be where nobody has said what will stand on it, in percent. */
const USUAL_FULL = 80;
const USUAL_HOURS = 24;

/** What the bench is asked about a set; how full it will be follows from what will stand on it. */
function questionOf(set: PlannedSet, drives: readonly Drive[], usableBytes: number | null): Question {
  const full =
    set.dataBytes === null || !usableBytes
      ? USUAL_FULL
      : Math.min(100, Math.max(1, Math.round((set.dataBytes / usableBytes) * 100)));
  return {
    ...{ drives: "", media: classOfDrives(drives), use: set.use, school: "any", coercion: "none" },
    sector: drives.length > 0 && drives.every((d) => d.logicalSectorBytes === 4096) ? 4096 : 512,
    ...{ survive: 0, least: null, spares: set.spares.length, free: 0, full, replace: USUAL_HOURS, afr: null },
  };
}

/** The figures of a planned set over the drives that it names, in its order; fails where they make no layout. */
export function setFigures(set: PlannedSet, byId: (id: string) => Drive | undefined): Result<SetFigures> {
  const layout = layoutOf(set);
  if (!layout.ok) return layout;
  const named = [...set.members, ...set.spares];
  const own = named.map(byId).filter((d) => d !== undefined);
  if (own.length < named.length) return fail({ message: "one of its drives is not in the machine" });
  const sizes = own.map((d) => d.sizeBytes);
  const fault =
    set.keeper === "md"
      ? mdFault(mdShape(layout.value, Math.min(...sizes.slice(0, set.members.length))))
      : null;
  if (fault) return fail({ message: fault });
  const class_ = CLASSES[classOfDrives(own)];
  const figured = (question: Question): Candidate => candidateOf(layout.value, sizes, class_, question);
  const first = questionOf(set, own, null);
  const { usableBytes } = figured(first);
  const question = questionOf(set, own, usableBytes);
  const candidate = figured(question);
  const special = set.special.flatMap((id) => byId(id) ?? []);
  const specials = special.map((d) => d.sizeBytes);
  const told = toldBytes(candidate, sizes, question) + specialBytes(specials, question);
  const loss = 1 - (1 - candidate.loss) * (1 - specialLoss(special, question));
  return ok({
    candidate,
    question,
    sizes,
    loss: special.length > 0 ? loss : candidate.loss,
    toldBytes: told,
  });
}

/** Chance that all special devices are lost, as one mirror of their own kind. */
function specialLoss(drives: readonly Drive[], question: Question): number {
  if (drives.length === 0) return 0;
  const layout: Layout = {
    kind: { school: "ZFS", type: drives.length > 1 ? "mirror" : "stripe" },
    groups: [[...drives.keys()]],
    ...{ spares: [], distributed: 0, data: 0, left: [] },
  };
  return candidateOf(
    layout,
    drives.map((d) => d.sizeBytes),
    CLASSES[classOfDrives(drives)],
    question,
  ).loss;
}

/** What a mirror of special devices adds to the size that the pool tells; it adds nothing to what can be used. */
function specialBytes(sizes: readonly number[], { sector }: Question): number {
  if (sizes.length === 0) return 0;
  const kind = sizes.length > 1 ? "mirror" : "stripe";
  const { normal, log } = vdevFigures(
    vdevShape(
      kind,
      sizes.map((b) => poolPartition(b, sector)),
      12,
    ),
  );
  return normal + log;
}

/** The vdevs of a planned pool. */
export function shapesOf({
  candidate: { layout },
  sizes,
  question,
}: Omit<SetFigures, "toldBytes" | "loss">): VdevShape[] {
  const least = layout.groups.map((g) => Math.min(...g.map((i) => sizes[i]!)));
  return poolShapes(layout, least, question);
}

function toldBytes(candidate: Candidate, sizes: readonly number[], question: Question): number {
  if (candidate.layout.kind.school !== "ZFS") return candidate.usableBytes;
  return poolFigures(shapesOf({ candidate, sizes: [...sizes], question })).size;
}
