import {
  chance,
  CLASSES,
  percent,
  REBUILD_SHARE,
  RUNG_WORDS,
  type BenchCandidate,
  type BenchQuestion,
} from "@/core/storage";
import { formatDuration, formatNumber } from "@/core/units";
import { Table, type Column } from "../frame/table";
import { Size } from "../frame/person";

type Rung = BenchCandidate["ladder"][number];

const RUNGS: readonly Column<Rung>[] = [
  { title: "Overhead", width: "w-[40%]", cell: (r) => RUNG_WORDS[r.what] },
  { title: "Bytes", right: true, className: "value", cell: (r) => formatNumber(r.lost) },
  {
    title: "Remaining",
    right: true,
    className: "value whitespace-nowrap",
    cell: (r) => <Size bytes={r.left} />,
  },
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
        Raw: <b className="value">{formatNumber(candidate.rawBytes)}</b> bytes
      </p>
      <Table
        label="Capacity breakdown"
        columns={RUNGS}
        rows={candidate.ladder}
        keyOf={(r, i) => `${r.what}${i}`}
      />
      <p className="mt-1">
        Usable: <b className="value">{formatNumber(candidate.usableBytes)}</b> bytes,{" "}
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
    cell: (r) => `${formatNumber(r.survived)} of ${formatNumber(r.total)}`,
  },
  { title: "Share", right: true, className: "value", cell: (r) => percent(r.fraction) },
];

export const Survived = ({ candidate }: { candidate: BenchCandidate }) => (
  <Table
    label="Survivable failures"
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
      <summary className="cursor-pointer">Assumptions for the probability of data loss</summary>
      <ul className="mt-1 list-disc pl-5">
        <li>
          Failures: annual failure rate {percent(question.afr ?? afr)} (
          {typed ? "entered" : "typical for this type of drive"}), independent of each other. Failures of
          drives of one batch are correlated, so the real risk is higher.
        </li>
        <li>
          Rebuild of a drive: {formatDuration(likely)} at {REBUILD_SHARE.likely * 100} % of{" "}
          {Math.round(bytesPerSecond / 1e6)} MB/s (typical), {formatDuration(late)} on a busy machine
          {candidate.layout.kind.school === "ZFS" ? `; only used space is read, ${question.full} %` : ""}.
        </li>
        <li>
          {candidate.layout.spares.length + candidate.layout.distributed > 0
            ? "A hot spare is available, so the rebuild starts at once."
            : `The drive is replaced within ${question.replace} h, then rebuilt.`}
        </li>
        <li>
          One bit in {(1 / bitErrors).toExponential(0)} is unreadable (data sheets). A rebuild without
          redundancy meets one with a probability of {chance(candidate.unreadable)}; that counts as data loss.
        </li>
        <li>Markov chain over the failed drives of a vdev, each vdev by itself, for 5 years.</li>
      </ul>
    </details>
  );
}
