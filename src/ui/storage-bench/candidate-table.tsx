import { chance, type BenchCandidate } from "@/core/storage";
import { formatFixed, formatDuration } from "@/core/units";
import { Table, type Column } from "../frame/table";
import { Size } from "../frame/person";

interface Props {
  candidates: readonly BenchCandidate[];
  chosen: BenchCandidate | undefined;
  choose: (name: string) => void;
}

/** Layouts side by side on one scale; those that no wish can prefer are folded, each with its reason. */
export function CandidateTable({ candidates, chosen, choose }: Props) {
  const standing = candidates.filter((c) => c.folded === null);
  const folded = candidates.filter((c) => c.folded !== null);
  const most = Math.max(...candidates.map((c) => c.usableBytes));
  const columns: readonly Column<BenchCandidate>[] = [
    {
      title: "Layout",
      heads: true,
      width: "w-[27%]",
      cell: (c) => (
        <button
          type="button"
          aria-pressed={c === chosen}
          className="link text-left font-normal aria-pressed:font-bold"
          onClick={() => choose(c.name)}
        >
          {c.name}
        </button>
      ),
    },
    {
      title: "Usable",
      width: "w-[25%]",
      cell: (c) => (
        <>
          <span className="value">
            <Size bytes={c.usableBytes} />
          </span>
          <span aria-hidden className="mt-0.5 block h-1.5 border border-base-content">
            <span
              className="block h-full bg-base-content"
              style={{ width: `${(c.usableBytes / most) * 100}%` }}
            />
          </span>
        </>
      ),
    },
    { title: "Fault tolerance", right: true, className: "value", cell: (c) => c.survival.worst },
    {
      title: "Data loss in 5 years",
      right: true,
      className: "value whitespace-nowrap",
      cell: (c) => chance(c.loss),
    },
    {
      title: "Rebuild time",
      right: true,
      className: "value pl-4 whitespace-nowrap",
      cell: (c) => formatDuration(c.rebuild.likely),
    },
    {
      title: "Random writes (× one drive)",
      right: true,
      className: "value",
      cell: (c) => formatFixed(c.writes, 1),
    },
  ];
  return (
    <div className="mb-5 max-h-[25rem] overflow-y-auto border-b border-base-300">
      <Table label="Layouts" columns={columns} rows={standing} keyOf={(c) => c.name} />
      {folded.length > 0 && (
        <details className="mt-2">
          <summary className="cursor-pointer">{folded.length} more layouts</summary>
          <Table
            label="More layouts"
            columns={[...columns.slice(0, 3), { title: "Reason", cell: (c) => c.folded }]}
            rows={folded}
            keyOf={(c) => c.name}
          />
        </details>
      )}
    </div>
  );
}
