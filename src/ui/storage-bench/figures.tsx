import {
  chance,
  CLASSES,
  percent,
  REBUILD_SHARE,
  RUNG_WORDS,
  type BenchCandidate,
  type BenchQuestion,
} from "@/core/storage";
import { formatDuration } from "@/core/units";
import { Table, type Column } from "../frame/table";
import { Size } from "../frame/person";

type Rung = BenchCandidate["ladder"][number];

const RUNGS: readonly Column<Rung>[] = [
  { title: "Lost to", width: "w-[40%]", cell: (r) => RUNG_WORDS[r.what] },
  { title: "Bytes", right: true, className: "value", cell: (r) => r.lost.toLocaleString("en-GB") },
  { title: "Left", right: true, className: "value whitespace-nowrap", cell: (r) => <Size bytes={r.left} /> },
];

/** Rung by rung from what the drives hold to what can be used. */
export function Ladder({
  candidate,
}: {
  candidate: Pick<BenchCandidate, "rawBytes" | "usableBytes" | "ladder">;
}) {
  return (
    <>
      <p>
        Raw: <b className="value">{candidate.rawBytes.toLocaleString("en-GB")}</b> bytes
      </p>
      <Table
        label="From raw to usable"
        columns={RUNGS}
        rows={candidate.ladder}
        keyOf={(r, i) => `${r.what}${i}`}
      />
      <p className="mt-1">
        Usable: <b className="value">{candidate.usableBytes.toLocaleString("en-GB")}</b> bytes,{" "}
        <Size bytes={candidate.usableBytes} />
      </p>
    </>
  );
}

type Row = BenchCandidate["survival"]["rows"][number];
const SURVIVED: readonly Column<Row>[] = [
  { title: "Failed", right: true, className: "value", cell: (r) => r.k },
  {
    title: "Survived",
    right: true,
    className: "value",
    cell: (r) => `${r.survived.toLocaleString("en-GB")} of ${r.total.toLocaleString("en-GB")}`,
  },
  { title: "Share", right: true, className: "value", cell: (r) => percent(r.fraction) },
];

export const Survived = ({ candidate }: { candidate: BenchCandidate }) => (
  <Table
    label="Failures that are survived"
    columns={SURVIVED}
    rows={candidate.survival.rows.slice(1, 8)}
    keyOf={(r) => r.k}
  />
);

/** What the figures follow from; usual ones are named so. */
export function Working({
  candidate,
  question,
}: {
  candidate: Pick<BenchCandidate, "rebuild" | "unreadable" | "layout">;
  question: BenchQuestion;
}) {
  const { afr, bitErrors, bytesPerSecond } = CLASSES[question.media];
  const { likely, late } = candidate.rebuild;
  const typed = question.afr !== null;
  return (
    <details className="mt-2">
      <summary className="cursor-pointer">What the chance of loss follows from</summary>
      <ul className="mt-1 list-disc pl-5">
        <li>
          Failures: {percent(question.afr ?? afr)} of drives in a year (
          {typed ? "typed" : "usual for the kind"}), independent of each other. Drives of one batch fail
          together more often than that.
        </li>
        <li>
          Rebuild of a drive: {formatDuration(likely)} at {REBUILD_SHARE.likely * 100} % of{" "}
          {Math.round(bytesPerSecond / 1e6)} MB/s (usual), {formatDuration(late)} where the machine is busy
          {candidate.layout.kind.school === "ZFS" ? `; only what is filled is read, ${question.full} %` : ""}.
        </li>
        <li>
          {candidate.layout.spares.length + candidate.layout.distributed > 0
            ? "A spare stands by, so the rebuild begins at once."
            : `The drive is replaced within ${question.replace} h, then rebuilt.`}
        </li>
        <li>
          A bit in {(1 / bitErrors).toExponential(0)} cannot be read (data sheets). A rebuild with nothing
          left to spare meets one with a chance of {chance(candidate.unreadable)}; that counts as loss.
        </li>
        <li>A Markov chain over the drives lost in a group, each group by itself, for five years.</li>
      </ul>
    </details>
  );
}
