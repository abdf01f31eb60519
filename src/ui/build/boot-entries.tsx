import type { EntryView } from "@/core/boot";
import { Table, type Column } from "../frame/table";

const COLUMNS: readonly Column<EntryView>[] = [
  { title: "", cell: (e) => e.place ?? "–", className: "value", width: "w-8" },
  {
    title: "Entry",
    heads: true,
    cell: (e) => (
      <>
        <span className="value">{e.id}</span> {e.label}
        {!e.active && <span className="quiet"> disabled</span>}
      </>
    ),
  },
  { title: "Owner", cell: (e) => (e.device ? `${e.owner}, ${e.device}` : e.owner) },
  { title: "After the installation", cell: (e) => e.after },
  { title: "Effect of deleting", cell: (e) => e.loses },
];

/** How many entries there are, and of whom. */
function inWords(entries: readonly EntryView[]): string {
  const owners = [...new Set(entries.map((e) => e.owner))].map(
    (owner) => `${entries.filter((e) => e.owner === owner).length} of ${owner}`,
  );
  return `${entries.length} ${entries.length === 1 ? "entry" : "entries"}: ${owners.join(", ")}`;
}

/** The list of the firmware: whose each entry is, before anybody touches it. */
export function BootEntries({ entries }: { entries: readonly EntryView[] }) {
  if (entries.length === 0) return null;
  return (
    <section aria-label="Boot entries of the firmware">
      <h3 className="label">Boot entries of the firmware</h3>
      <details>
        <summary className="cursor-pointer">{inWords(entries)}</summary>
        <Table label="Boot entries" columns={COLUMNS} rows={entries} keyOf={(e) => e.id} />
        <p className="quiet mt-1 text-[0.86rem]">
          Delete single entries by number, never the whole list: it also has the entries of other systems and
          of the network.
        </p>
      </details>
    </section>
  );
}
