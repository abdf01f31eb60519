import type { SettingView } from "@/core/boot";
import { Ruled } from "../frame/page";
import { Table, type Column } from "../frame/table";

const COLUMNS: readonly Column<SettingView>[] = [
  { title: "Setting", heads: true, cell: (l) => l.title },
  {
    title: "Planned",
    cell: (l) => (
      <>
        <b>{l.value}</b> <span className="quiet text-[0.82rem]">{l.why}</span>
      </>
    ),
  },
  {
    title: "Found",
    cell: (l) =>
      l.found ? (
        <span className={l.isAsWanted === false ? "text-error" : ""}>
          <b>{l.found.value}</b> <span className="quiet text-[0.82rem]">{l.found.from}</span>
        </span>
      ) : (
        <span className="quiet">not collected</span>
      ),
  },
  {
    title: "",
    cell: (l) =>
      l.isAsWanted === null
        ? l.found
          ? "compare by inspection"
          : ""
        : l.isAsWanted
          ? "as planned"
          : "differs",
  },
];

/** How the site wants this machine's firmware, beside what was read of it; nothing where the site lays nothing down. */
export function SiteSettings({ lines }: { lines: readonly SettingView[] }) {
  if (lines.length === 0) return null;
  return (
    <Ruled title="Firmware settings and site policy" note="policy of this site for this role">
      <Table label="Firmware settings and site policy" columns={COLUMNS} rows={lines} keyOf={(l) => l.key} />
    </Ruled>
  );
}
