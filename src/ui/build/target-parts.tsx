import type { PartitionView, PlannedPart } from "@/core/storage";
import { SWAP_SCHOOLS } from "@/core/storage";
import { formatFixed, formatBinaryBytes, formatBytes } from "@/core/units";
import { SelectField, type FieldMark } from "../fields/fields";
import { CopyValue } from "../frame/copy-value";
import { Table, type Column } from "../frame/table";
import { Size } from "../frame/person";

interface Props {
  plan: PartitionView;
  swap: (typeof SWAP_SCHOOLS)[number];
  marks: readonly FieldMark[];
  onSwap: (swap: (typeof SWAP_SCHOOLS)[number]) => void;
}

const COLUMNS: readonly Column<PlannedPart>[] = [
  {
    title: "Part",
    heads: true,
    cell: (p) => (p.within ? <span className="pl-4">{p.name}</span> : p.name),
  },
  { title: "Contents", cell: (p) => (p.fs === "none" ? "–" : p.fs) },
  { title: "Size", right: true, className: "value whitespace-nowrap", cell: (p) => <Size bytes={p.bytes} /> },
  {
    title: "Size in df",
    right: true,
    className: "value whitespace-nowrap",
    cell: (p) => (p.dfBytes === null ? "–" : formatBinaryBytes(p.dfBytes)),
  },
];

/** What the installer makes of the target by itself: drawn to scale, in a table, with the swap and what stays idle. */
export function TargetParts({ plan, swap, marks, onSwap }: Props) {
  const { parts, idleBytes, driveBytes, drives, table, grow } = plan;
  return (
    <section aria-label="Partitions of the target">
      <h3 className="label">
        Partitions that the installer creates{drives > 1 ? " on each drive" : ""} –{" "}
        {table === "gpt" ? "GPT" : "MBR"}
      </h3>
      <Strip parts={parts} idleBytes={idleBytes} driveBytes={driveBytes} />
      <details className="mt-1">
        <summary className="cursor-pointer">
          {parts.filter((p) => p.within === null).length} partitions
          {idleBytes > 1e9 ? `, ${formatBytes(idleBytes)} unused` : ""}
        </summary>
        <Table
          label="Partitions of the target"
          columns={COLUMNS}
          rows={parts}
          keyOf={(p) => `${p.within}${p.name}`}
        />
        <SwapTable plan={plan} />
      </details>
      {idleBytes > 1e9 && grow.length > 0 && (
        <p className="mt-1 flex flex-wrap items-baseline gap-x-4">
          <span className="quiet">to use it once the system runs:</span>
          {grow.map((command) => (
            <CopyValue key={command} value={command} />
          ))}
        </p>
      )}
      <div className="mt-2 max-w-72">
        <SelectField
          path="storage.swap"
          label="Swap"
          marks={[...marks]}
          value={swap}
          options={SWAP_SCHOOLS.map((value) => ({ value, text: value }))}
          onChange={onSwap}
          hint={plan.memoryUnread ? "memory size not collected, so the swap size is unknown" : undefined}
        />
      </div>
    </section>
  );
}

/** Parts in their order and to scale; the smallest ones are drawn wider than they are, so that they can be seen. */
function Strip({ parts, idleBytes, driveBytes }: Pick<PartitionView, "parts" | "idleBytes" | "driveBytes">) {
  const leaves = parts.filter((p) => !parts.some((q) => q.within === p.name));
  const shown = [
    ...leaves.map((p) => ({ key: `${p.within}${p.name}`, name: p.name, bytes: p.bytes, isIdle: false })),
    ...(idleBytes > 1e9 ? [{ key: "idle", name: "unused", bytes: idleBytes, isIdle: true }] : []),
  ];
  return (
    <div
      role="img"
      aria-label={`The target from its first to its last partition: ${shown.map((p) => `${p.name}, ${formatBytes(p.bytes)}`).join("; ")}`}
      className="mt-1 flex h-9 border border-base-content"
    >
      {shown.map((p) => (
        <div
          key={p.key}
          title={`${p.name}: ${formatBytes(p.bytes)}`}
          className={`flex min-w-1.5 flex-wrap items-center overflow-hidden border-r border-base-content px-1 text-[0.82rem] whitespace-nowrap last:border-r-0 ${p.isIdle ? "hatched" : ""}`}
          style={{ flexGrow: p.bytes / driveBytes, flexBasis: 0 }}
        >
          {/* A name that has no room wraps below this strut, out of sight: the list below has all of them. */}
          <span className="h-full w-0" />
          <span className={p.isIdle ? "bg-base-100 px-1" : ""}>{p.name}</span>
        </div>
      ))}
    </div>
  );
}

type Swap = PartitionView["swaps"][number];

/** How much swap each school gives here, which share of the drive that is, and why one would choose it. */
const SwapTable = ({ plan: { swaps, swapBytes, driveBytes } }: { plan: PartitionView }) => {
  const own = (s: Swap): number | null => (s.school === SWAP_SCHOOLS[0] ? null : s.bytes);
  const columns: readonly Column<Swap>[] = [
    { title: "Swap", heads: true, cell: (s) => s.school },
    {
      title: "On this machine",
      right: true,
      className: "value whitespace-nowrap",
      cell: (s) => {
        const bytes = own(s);
        return bytes === null ? "–" : formatBinaryBytes(bytes);
      },
    },
    {
      title: "Share of the drive",
      right: true,
      className: "value",
      cell: (s) => {
        const bytes = own(s);
        return bytes === null ? "–" : `${formatFixed((100 * bytes) / driveBytes, 1)} %`;
      },
    },
    { title: "Reason", cell: (s) => s.reason },
  ];
  return (
    <>
      <Table label="Compare swap sizes" columns={columns} rows={swaps} keyOf={(s) => s.school} />
      <p className="quiet mt-1">Chosen now: {swapBytes > 0 ? formatBinaryBytes(swapBytes) : "none"}.</p>
    </>
  );
};
