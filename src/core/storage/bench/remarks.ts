import { keysOf } from "../../text";
import { formatFixed, formatBytes, formatDuration } from "../../units";
import { allocated, deflated, vdevShape } from "../zfs";
import type { Candidate } from "./candidate";
import { tolerates } from "./layout";
import type { Question } from "./question";
import { percent } from "./words.en";

/** Something that a person should know of a layout before choosing it. */
export interface Remark {
  code: keyof typeof REMARKS;
  severity: "caution" | "note";
  text: string;
}

interface Ground {
  candidate: Candidate;
  others: readonly Candidate[];
  question: Question;
}

/** A rebuild that cannot read everything is called out from this chance on. */
const MUCH_UNREADABLE = 0.01;
const WIDE = 12;
const LONG_SECONDS = 48 * 3600;
const VOLUME_BLOCK = 16 * 1024;
const MUCH_PADDING = 1.05;
const FULL_POOL = 80;
/** Machines with fewer drives than this have a hand near them. */
const MANY = 6;

/** What a volume of 16 KiB blocks takes of a pool for each of its bytes. */
function padding({ layout }: Candidate): number {
  const shape = vdevShape(String(layout.kind.type), Array<number>(layout.groups[0]!.length).fill(1e12), 12, {
    ...{ data: layout.data, spares: layout.distributed },
  });
  return deflated(shape, allocated(shape, VOLUME_BLOCK)) / VOLUME_BLOCK;
}

const hasParity = ({ layout: { kind } }: Candidate): boolean => /^(raidz|draid)/.test(String(kind.type));

/** The candidate of the same kind, with the same number of groups, that leaves more drives out and still holds more. */
const withoutTheOdd = ({ candidate, others }: Ground): Candidate | undefined =>
  others
    .filter(
      (o) =>
        o.layout.kind.school === candidate.layout.kind.school &&
        o.layout.kind.type === candidate.layout.kind.type &&
        o.layout.groups.length === candidate.layout.groups.length &&
        o.layout.left.length > candidate.layout.left.length &&
        o.usableBytes > candidate.usableBytes,
    )
    .sort((a, b) => b.usableBytes - a.usableBytes)[0];

/** For each remark: its words, or null where there is nothing to say. */
const REMARKS = {
  unreadable: ({ candidate }: Ground) =>
    tolerates(candidate.layout) === 1 && candidate.unreadable > MUCH_UNREADABLE
      ? `After one drive failure, the rebuild meets an unreadable sector with a probability of ${percent(candidate.unreadable)}. Double parity or three-way mirrors tolerate that.`
      : null,
  odd: (ground: Ground) => {
    const better = ground.candidate.ladder.some((r) => r.what === "mixed")
      ? withoutTheOdd(ground)
      : undefined;
    return better
      ? `The smallest drive of a group limits the others: without ${better.layout.left.length - ground.candidate.layout.left.length} of these drives the usable capacity would be larger, ${formatBytes(better.usableBytes)}.`
      : null;
  },
  wide: ({ candidate }: Ground) =>
    hasParity(candidate) && candidate.layout.data === 0 && candidate.layout.groups[0]!.length > WIDE
      ? `Each small read uses all ${candidate.layout.groups[0]!.length} drives of a group, and a rebuild reads all of them.`
      : null,
  copies: ({ candidate: { layout } }: Ground) =>
    layout.kind.type === "mirror" && layout.groups[0]!.length > 3
      ? "A fourth copy adds little protection to a third: deleted or overwritten data is lost on all copies. Only a backup protects against that."
      : null,
  padding: ({ candidate, question }: Ground) => {
    if (!hasParity(candidate) || !["guests", "database"].includes(question.use)) return null;
    const factor = padding(candidate);
    return factor > MUCH_PADDING
      ? `Volumes with 16 KiB blocks use ${formatFixed(factor, 2)} times their size on groups of this width.`
      : null;
  },
  spare: ({ candidate: { layout, used }, question }: Ground) =>
    question.spares + question.free + layout.distributed + layout.left.length === 0 && used >= MANY
      ? "No hot spare and no free bay: a failed drive must be pulled before its replacement is inserted, so it cannot be used as a source."
      : null,
  long: ({ candidate }: Ground) =>
    tolerates(candidate.layout) > 0 && candidate.rebuild.late > LONG_SECONDS
      ? `On a busy machine the rebuild of a drive takes ${formatDuration(candidate.rebuild.late)}.`
      : null,
  full: ({ candidate, question }: Ground) =>
    candidate.layout.kind.school === "ZFS" && question.full > FULL_POOL
      ? `Above ${FULL_POOL} % full the pool slows down, and fragmentation remains afterwards.`
      : null,
} as const satisfies Record<string, (ground: Ground) => string | null>;

const CAUTIONS: ReadonlySet<string> = new Set(["unreadable", "odd", "padding"]);

/** What to know of a candidate, the graver first. */
export function remarksOn(candidate: Candidate, others: readonly Candidate[], question: Question): Remark[] {
  const all = keysOf(REMARKS).flatMap((code): Remark[] => {
    const text = REMARKS[code]({ candidate, others, question });
    return text === null ? [] : [{ code, text, severity: CAUTIONS.has(code) ? "caution" : "note" }];
  });
  return all.sort((a, b) => Number(a.severity === "note") - Number(b.severity === "note"));
}

export const REMARK_CODES = keysOf(REMARKS);
