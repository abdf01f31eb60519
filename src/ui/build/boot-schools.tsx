import { secondDevice, type SchoolView } from "@/core/boot";
import type { Sheet, SheetChanges } from "@/core/sheet";
import { bound } from "../draft/bound";
import { ParsedField } from "../fields/fields";
import { numberField } from "../fields/numbers";
import { Table, type Column } from "../frame/table";

const COLUMNS: readonly Column<SchoolView>[] = [
  {
    title: "School",
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
    cell: (s) => (s.isPossible ? s.here : <span className="quiet">not here: {s.here}</span>),
  },
  { title: "Bays", right: true, className: "value", cell: (s) => (s.isPossible ? s.bays : "") },
  { title: "May fail", right: true, className: "value", cell: (s) => (s.isPossible ? s.survives : "") },
  { title: "Wear", cell: (s) => s.wear },
  { title: "A reinstallation keeps", cell: (s) => s.keeps },
  {
    title: "The profile",
    cell: (s) =>
      s.profile ? (
        <>
          {s.profile.verdict}
          {s.profile.words && <div className="quiet text-[0.82rem]">{s.profile.words}</div>}
        </>
      ) : (
        <span className="quiet">says nothing</span>
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
    <section aria-label="Boot devices side by side">
      <h3 className="label">Boot devices side by side</h3>
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
  return `${chosen ? `${chosen.school}${said}` : "no target yet"}; ${possible} of ${schools.length} are possible here`;
}

const price = numberField(1, "a price, such as 420", (n) => n > 0 && n <= 1e9);
const share = numberField(0.01, "a share in percent, such as 4", (n) => n > 0 && n <= 100);
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
    <div className="mt-3 grid items-end gap-x-6 gap-y-2 sm:grid-cols-4">
      <ParsedField {...field("boot.worth.failuresPerYear", "One device fails in a year, %")} {...share} />
      <ParsedField {...field("boot.worth.dayPrice", "A day without the machine costs")} {...price} />
      <ParsedField {...field("boot.worth.devicePrice", "A second device costs")} {...price} />
      <ParsedField
        {...field("boot.worth.replacedWithinDays", "Replaced within, days")}
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
          <span className="quiet">
            With these figures Derrick tells when a second device has paid for itself.
          </span>
        )}
      </p>
    </div>
  );
}

const two = (n: number): string => n.toLocaleString("en-GB", { maximumFractionDigits: n < 10 ? 2 : 0 });

/** The working, so that it can be followed. */
function inNumbers(worth: Parameters<typeof secondDevice>[0]): string {
  const { single, pair, paidAfterYears } = secondDevice(worth);
  const { failuresPerYear: f, dayPrice, devicePrice, replacedWithinDays: d } = worth;
  const one = `One device: ${two(f * 100)} % × ${two(dayPrice)} = ${two(single)} a year.`;
  const both = `Two: 2 × ${two(f * 100)} % × (${two(f * 100)} % × ${d} / 365) × ${two(dayPrice)} = ${two(pair)} a year.`;
  const end =
    paidAfterYears === null
      ? "The second never pays for itself."
      : `The second, for ${two(devicePrice)}, has paid for itself after ${two(paidAfterYears)} years.`;
  return `${one} ${both} ${end}`;
}
