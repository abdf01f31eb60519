import { useState } from "react";
import type { CardModuleView, SyncView } from "@/core/boot";
import type { Sheet, SheetChanges } from "@/core/sheet";
import { formatDateTime } from "@/core/units";
import { ChoiceField, Field, SelectField, TextField, type FieldMark } from "../fields/fields";
import type { ZoneProps } from "./zone-props";
import { Table, type Column } from "../frame/table";

const REMOVABLE = [
  { value: "", text: "not decided" },
  { value: "no", text: "no" },
  { value: "yes", text: "yes" },
] as const;

interface Props {
  module: CardModuleView;
  sheet: Sheet;
  edit: (changes: SheetChanges) => void;
  marks: ZoneProps["marks"];
  timeZone: string;
}

const COLUMNS: readonly Column<CardModuleView["cards"][number]>[] = [
  { title: "Card", heads: true, cell: (c) => c.slot },
  { title: "State", cell: (c) => c.state },
  { title: "", cell: (c) => (c.isPrimary ? "primary: the mirror copies from this card" : "") },
];

/** The module for boot cards: its cards, how its mirror is set up, and until when a degraded state is none to worry about. */
export function BootCards({ module, sheet, edit, marks, timeZone }: Props) {
  const { cards } = sheet.boot;
  const slots = module.cards.map((c) => ({ value: c.slot, text: c.slot }));
  return (
    <section aria-label="Boot flash cards">
      <h3 className="label">Boot flash cards</h3>
      <details open={module.sync !== null || module.mirror?.isWhole === false || cards.readings.length > 0}>
        <summary className="cursor-pointer">{inWords(module)}</summary>
        {module.cards.length > 0 && (
          <Table label="Boot flash cards" columns={COLUMNS} rows={module.cards} keyOf={(c) => c.slot} />
        )}
        <Sync sync={module.sync} timeZone={timeZone} />
        <div className="mt-2 grid items-start gap-x-8 gap-y-3 sm:grid-cols-2 md:grid-cols-4">
          <PercentField readings={cards.readings} edit={edit} marks={marks("boot.cards.readings")} />
          <TextField
            path="boot.cards.name"
            label="Mirror name"
            marks={marks("boot.cards.name")}
            value={cards.name}
            placeholder={module.mirror?.name ?? ""}
            onChange={(name) => edit({ "boot.cards.name": name })}
          />
          <SelectField
            path="boot.cards.primary"
            label="Primary card"
            marks={marks("boot.cards.primary")}
            value={cards.primary}
            options={slots}
            empty="not decided"
            onChange={(slot) => edit({ "boot.cards.primary": slot })}
          />
          <ChoiceField
            path="boot.cards.removable"
            label="Reported as removable"
            marks={marks("boot.cards.removable")}
            value={cards.removable}
            options={REMOVABLE}
            onChange={(v) => edit({ "boot.cards.removable": v })}
          />
        </div>
      </details>
    </section>
  );
}

function inWords({ module, cards, mirror, sync }: CardModuleView): string {
  const state = mirror
    ? `${mirror.name}, ${mirror.level}, ${sync ? `${sync.readings.at(-1)?.percent} % mirrored` : mirror.isWhole ? "whole" : mirror.state}`
    : "mirror status not collected";
  return `${module}: ${cards.length || "no"} ${cards.length === 1 ? "card" : "cards"} found; ${state}`;
}

const EXPECTED = "Secondary card unhealthy, mirror degraded, red light:";

function Sync({ sync, timeZone }: { sync: SyncView | null; timeZone: string }) {
  if (!sync) return null;
  const time = (iso: string | null): string => (iso ? formatDateTime(iso, timeZone) : "");
  const due = sync.lateAt ?? sync.endsAt;
  return (
    <div className="mt-2" data-sync={sync.stands}>
      <p>
        {sync.readings
          .slice(-4)
          .map((r) => `${r.percent} % at ${time(r.at)}`)
          .join("; ")}
        .{" "}
        {sync.endsAt && (
          <>
            Complete at about <b>{time(sync.endsAt)}</b>
            {sync.lateAt && <>, at the latest {time(sync.lateAt)}</>}{" "}
          </>
        )}
        <span className="quiet">({sync.from})</span>
      </p>
      <p className={sync.stands === "overdue" ? "text-error" : ""}>
        {EXPECTED}{" "}
        <b>
          {sync.stands === "overdue"
            ? `expected until ${time(due)}; a fault if still shown`
            : due
              ? `expected until ${time(due)}; a fault afterwards`
              : "expected for now; enter the percentage again to get an end time"}
        </b>
        .
      </p>
    </div>
  );
}

/** What the module's page shows now, with the time at which it was typed. */
function PercentField({
  readings,
  edit,
  marks,
}: {
  readings: Sheet["boot"]["cards"]["readings"];
  edit: Props["edit"];
  marks: FieldMark[];
}) {
  const [typed, setTyped] = useState("");
  const percent = Number(typed);
  const fits = /^\d{1,3}$/.test(typed) && percent <= 100;
  const add = () => {
    const at = new Date().toISOString();
    edit({ "boot.cards.readings": [...readings, { at, percent }] });
    setTyped("");
  };
  return (
    <Field path="boot.cards.readings" label="Percentage shown" marks={marks}>
      <form
        className="flex items-start gap-2"
        onSubmit={(e) => {
          e.preventDefault();
          if (fits) add();
        }}
      >
        <input
          aria-label="Percentage shown"
          className="input max-w-20"
          inputMode="numeric"
          value={typed}
          onChange={(e) => setTyped(e.target.value.trim())}
        />
        <button type="submit" className="btn -mt-1" disabled={!fits}>
          Add
        </button>
      </form>
      {typed !== "" && !fits && <p className="text-error text-[0.86rem]">A whole number, 0 to 100.</p>}
      {readings.length > 0 && (
        <button
          type="button"
          className="link quiet text-[0.86rem]"
          onClick={() => edit({ "boot.cards.readings": readings.slice(0, -1) })}
        >
          Undo last entry
        </button>
      )}
    </Field>
  );
}
