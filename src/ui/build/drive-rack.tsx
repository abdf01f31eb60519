import { Day } from "../frame/person";
import type { Drive } from "@/core/machine";
import { bayWords, contentWords, serialTail, MEDIA_NAMES } from "@/core/machine";
import { isToBeMade } from "@/core/storage";
import { formatBinaryBytes, formatDecimalBytes } from "@/core/units";

/** One drive as a bar: its length to scale with the others of the machine, its parts hatched where something stands. */
export function DriveBar({ drive, largest }: { drive: Drive; largest: number }) {
  const width = Math.max(3, (100 * drive.sizeBytes) / Math.max(largest, 1));
  const parts = (drive.contents ?? []).filter((c) => c.sizeBytes > 0);
  return (
    <div
      className="h-5 w-full"
      role="img"
      aria-label={`A drive of ${formatDecimalBytes(drive.sizeBytes)}, contents: ${contentWords(drive)}`}
    >
      <div className="relative flex h-full border border-current" style={{ width: `${width}%` }}>
        {parts.map((c) => (
          <span
            key={c.part}
            className={`h-full border-r border-current ${drive.memberOf.length > 0 ? "dotted-fill" : "hatched"}`}
            title={`${c.kind} ${c.label ?? ""}`}
            style={{
              width: `${Math.max(1.5, (100 * c.sizeBytes) / drive.sizeBytes)}%`,
            }}
          />
        ))}
      </div>
    </div>
  );
}

/** Under which name it was last seen; names move. */
const seenWords = (drive: Drive): string =>
  isToBeMade(drive)
    ? "to be created"
    : drive.seenAs === "?"
      ? "not reported by a system"
      : `was ${drive.seenAs}`;

/** One of the things that a drive can become. */
export interface FateChoice {
  value: string;
  text: string;
  title: string;
}

/** The drives of a machine, each by bay, model, serial tail and size, with what is on it and what becomes of it. */
export function DriveRack({
  drives,
  among = drives,
  fateOf,
  isErased,
  choices,
  hidesSerial,
  onFate,
}: {
  drives: Drive[];
  /** All drives that the bars are to scale with, where these are some of them. */
  among?: readonly Drive[];
  fateOf: (drive: Drive) => string;
  /** What is on it is lost by the build. */
  isErased: (drive: Drive) => boolean;
  choices: (drive: Drive) => readonly FateChoice[];
  /** The sheet asks for the serial of this drive: it is not shown beside the question. */
  hidesSerial: (drive: Drive) => boolean;
  onFate?: (drive: Drive, fate: string) => void;
}) {
  const largest = Math.max(...among.map((d) => d.sizeBytes), 1);
  return (
    <div className="overflow-x-auto">
      <table className="table">
        <thead>
          <tr>
            {onFate && <th>Use</th>}
            <th>Drive</th>
            <th>Serial (last 6)</th>
            <th className="w-[32%]">Capacity</th>
          </tr>
        </thead>
        <tbody>
          {drives.map((d) => {
            const fate = fateOf(d);
            const gone = d.missingSince !== null;
            return (
              <tr
                key={d.id}
                className={gone ? "opacity-70" : ""}
                style={
                  isErased(d)
                    ? { background: "color-mix(in oklab, var(--color-warning) 12%, transparent)" }
                    : undefined
                }
              >
                {onFate && (
                  <td className="whitespace-nowrap">
                    <UseChoice
                      drive={d}
                      fate={fate}
                      choices={choices(d)}
                      isHidden={hidesSerial(d)}
                      onFate={onFate}
                    />
                  </td>
                )}
                <td>
                  <div className="font-medium">
                    {d.bay ? `${bayWords(d.bay)} · ` : ""}
                    {d.model ?? MEDIA_NAMES[d.media]}
                  </div>
                  <div className="quiet text-[0.86rem]">
                    {formatDecimalBytes(d.sizeBytes)} · {formatBinaryBytes(d.sizeBytes)} ·{" "}
                    {MEDIA_NAMES[d.media]} · {seenWords(d)}
                  </div>
                </td>
                <td className={hidesSerial(d) ? "quiet" : "value"}>
                  {hidesSerial(d) ? "hidden – type it below" : serialTail(d) || "none"}
                </td>
                <td>
                  <DriveBar drive={d} largest={largest} />
                  <div className="mt-0.5 text-[0.86rem] [overflow-wrap:anywhere]">
                    {d.missingSince !== null ? (
                      <>
                        not found since <Day at={d.missingSince} />
                      </>
                    ) : (
                      contentWords(d)
                    )}
                  </div>
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </div>
  );
}

/** What becomes of one drive, to be chosen. */
function UseChoice({
  drive,
  fate,
  choices,
  isHidden,
  onFate,
}: {
  drive: Drive;
  fate: string;
  choices: readonly FateChoice[];
  isHidden: boolean;
  onFate: (drive: Drive, fate: string) => void;
}) {
  return (
    <div
      role="radiogroup"
      aria-label={`Use of ${drive.model ?? "drive"} ${isHidden ? drive.seenAs : serialTail(drive) || drive.seenAs}`}
      className="flex flex-wrap gap-x-2"
    >
      {choices.map((f) => (
        <label
          key={f.value}
          title={f.title}
          className={`cursor-pointer border-b-2 has-focus-visible:outline-2 ${fate === f.value ? "border-current font-semibold" : "quiet border-transparent"}`}
        >
          <input
            type="radio"
            className="sr-only"
            name={`fate-${drive.id}`}
            checked={fate === f.value}
            onChange={() => onFate(drive, f.value)}
          />
          {f.text}
        </label>
      ))}
    </div>
  );
}
