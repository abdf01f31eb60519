import type { SettingView } from "@/core/boot";
import { Ruled } from "../frame/page";
import { Table, type Column } from "../frame/table";

const COLUMNS: readonly Column<SettingView>[] = [
  { title: "Setting", heads: true, cell: (l) => l.title },
  {
    title: "Wanted",
    cell: (l) => (
      <>
        <b>{l.value}</b> <span className="quiet text-[0.82rem]">{l.why}</span>
      </>
    ),
  },
  {
    title: "As read",
    cell: (l) =>
      l.found ? (
        <span className={l.isAsWanted === false ? "text-error" : ""}>
          <b>{l.found.value}</b> <span className="quiet text-[0.82rem]">{l.found.from}</span>
        </span>
      ) : (
        <span className="quiet">not read</span>
      ),
  },
  {
    title: "",
    cell: (l) =>
      l.isAsWanted === null ? (l.found ? "compare by eye" : "") : l.isAsWanted ? "as wanted" : "differs",
  },
];

/** How the site wants this machine's firmware, beside what was read of it; nothing where the site lays nothing down. */
export function SiteSettings({ lines }: { lines: readonly SettingView[] }) {
  if (lines.length === 0) return null;
  return (
    <Ruled title="Firmware against the site" note="as the site's page lays it down for machines of this role">
      <Table label="Firmware against the site" columns={COLUMNS} rows={lines} keyOf={(l) => l.key} />
    </Ruled>
  );
}
