import Link from "next/link";
import { useState } from "react";
import type { BootPicture } from "@/core/boot";
import type { Sheet, SheetChanges } from "@/core/sheet";
import { Field, type FieldMark } from "../fields/fields";
import { Table, type Column } from "../frame/table";
import { wantedColumns } from "./settings-print";

type Line = BootPicture["settings"][number];
type Seen = Sheet["boot"]["settings"][number];

const DONE: readonly { value: Seen["done"]; text: string }[] = [
  { value: "", text: "–" },
  { value: "set", text: "set as planned" },
  { value: "left", text: "left as found" },
  { value: "cannot be set", text: "cannot be set" },
];

interface Props {
  lines: readonly Line[];
  build: string;
  sheet: Sheet;
  edit: (changes: SheetChanges) => void;
  marks: FieldMark[];
}

/** How the sheet stands, in a line. */
function inWords(lines: readonly Line[]): string {
  const other = lines
    .filter((l) => l.isAsWanted === false && l.done === "")
    .map((l) => l.title.toLowerCase());
  const open = lines.filter((l) => l.found === null && l.done === "").length;
  const parts = [
    `${lines.length} settings result from this sheet`,
    other.length > 0 ? `set differently: ${other.join(", ")}` : "",
    open > 0 ? `${open} not inspected` : "",
  ];
  return parts.filter(Boolean).join("; ");
}

/** The settings sheet of the firmware: wanted and why, as found, and what was done; what stood there is the way back. */
export function BootSettings({ lines, build, sheet, edit, marks }: Props) {
  const { settings } = sheet.boot;
  const write = (key: string, part: Partial<Seen>): void => {
    const old = settings.find((s) => s.key === key) ?? { key, found: "", done: "" as const };
    edit({ "boot.settings": [...settings.filter((s) => s.key !== key), { ...old, ...part }] });
  };
  const typed = (key: string): string => settings.find((s) => s.key === key)?.found ?? "";
  const columns: readonly Column<Line>[] = [
    ...wantedColumns("w-[30%]", "w-[26%]"),
    {
      title: "As found",
      cell: (l) => (
        <>
          {l.found && (
            <div className={l.isAsWanted === false ? "text-error" : ""}>
              <b>{l.found.value}</b> <span className="quiet text-[0.82rem]">{l.found.from}</span>
            </div>
          )}
          <input
            aria-label={`${l.title}, as found`}
            className="input"
            value={typed(l.key)}
            maxLength={200}
            placeholder={l.found ? "" : "not inspected"}
            onChange={(e) => write(l.key, { found: e.target.value })}
          />
        </>
      ),
    },
    {
      title: "Done",
      cell: (l) => (
        <select
          aria-label={`${l.title}, done`}
          className="select"
          value={l.done}
          onChange={(e) => write(l.key, { done: e.target.value as Seen["done"] })}
        >
          {DONE.map((d) => (
            <option key={d.value} value={d.value}>
              {d.text}
            </option>
          ))}
        </select>
      ),
    },
  ];
  return (
    <Field path="boot.settings" label="Firmware settings" marks={marks}>
      <details>
        <summary className="cursor-pointer">{inWords(lines)}</summary>
        <Table label="Firmware settings" columns={columns} rows={lines} keyOf={(l) => l.key} />
        <AsText lines={lines} build={build} />
      </details>
    </Field>
  );
}

/** The sheet as plain text, to go into a ticket or along to the machine. */
function AsText({ lines, build }: { lines: readonly Line[]; build: string }) {
  const [said, setSaid] = useState("");
  const copy = async () => {
    const { settingsText } = await import("@/core/boot");
    await navigator.clipboard.writeText(settingsText(lines));
    setSaid("copied");
  };
  return (
    <p className="mt-1">
      <button type="button" className="link" onClick={() => void copy()}>
        Copy as text
      </button>
      <Link className="link ml-4" href={`/builds/${build}/settings`}>
        Print
      </Link>
      {said && (
        <span role="status" className="quiet ml-2">
          {said}
        </span>
      )}
    </p>
  );
}
