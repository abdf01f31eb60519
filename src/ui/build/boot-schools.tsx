import { formatNumber } from "@/core/units";
import { secondDevice, type SchoolView } from "@/core/boot";
import type { Sheet, SheetChanges } from "@/core/sheet";
import { bound } from "../draft/bound";
import { ParsedField } from "../fields/fields";
import { numberField } from "../fields/numbers";
import { Table, type Column } from "../frame/table";

const COLUMNS: readonly Column<SchoolView>[] = [
  {
    title: "Boot device",
    heads: true,
    width: "w-[24%]",
    cell: (s) => (
      <>
        <span className={s.isChosen ? "" : "font-normal"}>{s.school}</span>
        {s.isChosen && <span className="quiet font-normal"> this sheet</span>}
        {s.note && <div className="quiet text-[0.82rem] font-normal">{s.note}</div>}
      </>
    ),
  },
  {
    title: "On this machine",
    width: "w-[26%]",
    cell: (s) => (s.isPossible ? s.here : <span className="quiet">not available: {s.here}</span>),
  },
  { title: "Bays used", right: true, className: "value", cell: (s) => (s.isPossible ? s.bays : "") },
  {
    title: "Fault tolerance",
    right: true,
    className: "value",
    cell: (s) => (s.isPossible ? s.survives : ""),
  },
  { title: "Wear", cell: (s) => s.wear },
  { title: "Kept by a reinstallation", cell: (s) => s.keeps },
  {
    title: "The profile",
    cell: (s) =>
      s.profile ? (
        <>
          {s.profile.verdict}
          {s.profile.words && <div className="quiet text-[0.82rem]">{s.profile.words}</div>}
        </>
      ) : (
        <span className="quiet">not specified</span>
      ),
  },
];

interface Props {
  schools: readonly SchoolView[];
  sheet: Sheet;
  edit: (changes: SheetChanges) => void;
}

/** What the system could be started from on this machine, side by side; none is picked in silence. */
export function BootSchools({ schools, sheet, edit }: Props) {
  const ordered = schools.toSorted((a, b) => Number(b.isPossible) - Number(a.isPossible));
  return (
    <section aria-label="Compare boot devices">
      <h3 className="label">Compare boot devices</h3>
      <details>
        <summary className="cursor-pointer">{inWords(schools)}</summary>
        <Table label="Boot devices" columns={COLUMNS} rows={ordered} keyOf={(s) => s.school} />
        <SecondDevice sheet={sheet} edit={edit} />
      </details>
    </section>
  );
}

function inWords(schools: readonly SchoolView[]): string {
  const chosen = schools.find((s) => s.isChosen);
  const possible = schools.filter((s) => s.isPossible).length;
  const said = chosen?.profile ? `, ${chosen.profile.verdict} by the profile` : "";
  return `${chosen ? `${chosen.school}${said}` : "no target"}; ${possible} of ${schools.length} are possible on this machine`;
}

const price = numberField(1, "a price, for example 420", (n) => n > 0 && n <= 1e9);
const share = numberField(0.01, "a percentage, for example 4", (n) => n > 0 && n <= 100);
const days = numberField(1, "days, 1 to 365", (n) => n > 0 && n <= 365);

/** What a second device is worth, from figures that somebody typed; nothing is worked out before all are there. */
function SecondDevice({ sheet, edit }: Omit<Props, "schools">) {
  const field = bound({
    document: sheet,
    type: edit as (changes: Readonly<Record<string, unknown>>) => void,
  });
  const { failuresPerYear, dayPrice, devicePrice, replacedWithinDays } = sheet.boot.worth;
  const isTold = failuresPerYear !== null && dayPrice !== null && devicePrice !== null;
  return (
    <div className="mt-3 grid items-end gap-x-6 gap-y-2 sm:grid-cols-2 md:grid-cols-4">
      <ParsedField
        {...field("boot.worth.failuresPerYear", "Annual failure rate (AFR) of one device, %")}
        {...share}
      />
      <ParsedField {...field("boot.worth.dayPrice", "Downtime cost per day")} {...price} />
      <ParsedField {...field("boot.worth.devicePrice", "Price of a second device")} {...price} />
      <ParsedField
        {...field("boot.worth.replacedWithinDays", "Replacement time, days")}
        format={days.format}
        parse={(text) => {
          const read = days.parse(text);
          return "value" in read && read.value === null ? { value: 7 } : (read as { value: number });
        }}
      />
      <p className="col-span-full">
        {isTold ? (
          inNumbers({ failuresPerYear, dayPrice, devicePrice, replacedWithinDays })
        ) : (
          <span className="quiet">Enter these figures to see when a second device pays off.</span>
        )}
      </p>
    </div>
  );
}

const two = (n: number): string => formatNumber(n, n < 10 ? 2 : 0);

/** The working, so that it can be followed. */
function inNumbers(worth: Parameters<typeof secondDevice>[0]): string {
  const { single, pair, paidAfterYears } = secondDevice(worth);
  const { failuresPerYear: f, dayPrice, devicePrice, replacedWithinDays: d } = worth;
  const one = `One device: ${two(f * 100)} % × ${two(dayPrice)} = ${two(single)} per year.`;
  const both = `Two devices: 2 × ${two(f * 100)} % × (${two(f * 100)} % × ${d} / 365) × ${two(dayPrice)} = ${two(pair)} per year.`;
  const end =
    paidAfterYears === null
      ? "A second device does not pay off."
      : `A second device for ${two(devicePrice)} pays off after ${two(paidAfterYears)} years.`;
  return `${one} ${both} ${end}`;
}
