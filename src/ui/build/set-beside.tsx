import { driveLook, type Drive } from "@/core/machine";
import {
  roleIn,
  withFate,
  withSeat,
  type PlannedSet,
  type PlanOfDrives,
  type SeatRole,
} from "@/core/storage";
import { Field } from "../fields/fields";

const ROLES = [
  { value: "special", text: "special: metadata and small blocks" },
  { value: "log", text: "log: synchronous writes" },
  { value: "cache", text: "cache: second-level read cache" },
  { value: "free", text: "none: free again" },
] as const;

interface Props {
  set: PlannedSet;
  plan: PlanOfDrives;
  drives: readonly Drive[];
  /** Those of which something could be made. */
  beside: readonly Drive[];
  change: (next: PlanOfDrives) => void;
}

const asRole = (value: string): SeatRole | null =>
  value === "special" || value === "log" || value === "cache" ? value : null;

/** Without a character of its serial, which the sheet may ask for; two of one look are told apart by where they were. */
const calledHere = (drive: Drive): string =>
  drive.bay ? driveLook(drive) : `${driveLook(drive)}, was ${drive.seenAs}`;

/** What stands beside the data of a pool: each drive with what it is there for, and one more. */
export function SetBeside({ set, plan, drives, beside, change }: Props) {
  const own = [...set.special, ...set.logs, ...set.caches].flatMap(
    (id) => drives.find((d) => d.id === id) ?? [],
  );
  const give = (drive: string, value: string): void => {
    const role = asRole(value);
    change(role ? withSeat(plan, drive, set.id, role) : withFate(plan, drive, "free"));
  };
  if (own.length === 0 && beside.length === 0) return null;
  return (
    <Field path={`storage.sets.${set.id}.special`} label="Additional devices">
      {own.map((drive) => (
        <p key={drive.id} className="flex flex-wrap items-baseline gap-x-3">
          <span>{calledHere(drive)}</span>
          <select
            className="select w-auto"
            aria-label={`Role of ${calledHere(drive)}`}
            value={roleIn(set, drive.id) ?? "free"}
            onChange={(e) => give(drive.id, e.target.value)}
          >
            {ROLES.map((r) => (
              <option key={r.value} value={r.value}>
                {r.text}
              </option>
            ))}
          </select>
        </p>
      ))}
      {beside.length > 0 && (
        <select
          className="select w-auto"
          aria-label="Drive to add as a device"
          value=""
          onChange={(e) => give(e.target.value, "special")}
        >
          <option value="">{own.length > 0 ? "add a drive…" : "no drive; choose one…"}</option>
          {beside.map((d) => (
            <option key={d.id} value={d.id}>
              {calledHere(d)}
            </option>
          ))}
        </select>
      )}
    </Field>
  );
}
