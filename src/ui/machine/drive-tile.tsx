import type { Bay, Drive } from "@/core/machine";
import { bayWords, contentWords, judgeDrive, MEDIA_NAMES } from "@/core/machine";
import { formatDecimalBytes } from "@/core/units";
import { HealthMark } from "./health-mark";

/** The class of a drive as a small drawing: platter, chips, blade, card, stick. */
export function MediaGlyph({ media }: { media: Drive["media"] }) {
  return (
    <svg
      viewBox="0 0 16 16"
      width="15"
      height="15"
      aria-hidden="true"
      fill="none"
      stroke="currentColor"
      strokeWidth="1.3"
      className="shrink-0"
    >
      {media === "spinning" && (
        <>
          <circle cx="8" cy="8" r="6.3" />
          <circle cx="8" cy="8" r="1.4" />
          <path d="M13 3 L9.2 7.2" />
        </>
      )}
      {media === "flash" && <path d="M2 3 H14 V13 H2 Z M5 6 H7.5 V10 H5 Z M9 6 H11.5 V10 H9 Z" />}
      {media === "nvme" && <path d="M1 6 H15 V11 H1 Z M3.5 11 V13 M6 11 V13 M8.5 11 V13 M4 8.5 H8" />}
      {media === "card" && <path d="M4 2 H10 L13 5 V14 H4 Z M6 2 V5 M8 2 V5" />}
      {media === "usb" && <path d="M5 6 H11 V15 H5 Z M6.5 6 V2 H9.5 V6" />}
      {(media === "virtual" || media === "unknown") && <path d="M2 3 H14 V13 H2 Z" strokeDasharray="2 2" />}
    </svg>
  );
}

const HATCH = (drive: Drive): string =>
  drive.memberOf.length > 0 ? "dotted-fill" : (drive.contents ?? []).length > 0 ? "hatched" : "";

/** What a screen reader says of a bay, and what the tile shows in brief. */
export const tileLabel = (bay: string | null, drive: Drive | null): string => {
  const place = bay ? bayWords(bay) : "not in a bay";
  if (!drive) return `${place}, empty`;
  return `${place}: ${drive.model ?? MEDIA_NAMES[drive.media]}, ${formatDecimalBytes(drive.sizeBytes)}, ${judgeDrive(drive).verdict}, ${contentWords(drive)}`;
};

/** "12 TB" rather than "12.0 TB": a tile has little room. */
const shortSize = (bytes: number): string => formatDecimalBytes(bytes).replace(/\.0+ /, " ");

/** One bay: number, class, size, health when it is worth a look, and a foot that shows whether something stands on it. */
export function DriveTile({
  bay,
  drive,
  chosen,
  tabbable,
  onChoose,
  style,
  narrow = false,
}: {
  bay: Pick<Bay, "name"> | null;
  /** A tall, slim bay: the size stands under the number. */
  narrow?: boolean;
  drive: Drive | null;
  chosen: boolean;
  tabbable: boolean;
  onChoose: () => void;
  style?: React.CSSProperties;
}) {
  const verdict = drive ? judgeDrive(drive).verdict : null;
  return (
    <button
      type="button"
      data-tile
      tabIndex={tabbable ? 0 : -1}
      aria-pressed={chosen}
      aria-label={tileLabel(bay?.name ?? null, drive)}
      onClick={onChoose}
      className={`relative flex min-h-9 min-w-0 cursor-pointer flex-col justify-between overflow-hidden border border-current/60 text-left leading-none aria-pressed:border-primary aria-pressed:inset-ring-2 aria-pressed:inset-ring-primary ${drive ? "bg-base-100" : "border-dashed"}`}
      style={{
        ...style,
      }}
    >
      <span
        className={`flex min-w-0 gap-x-1 px-1.5 pt-1 ${narrow ? "flex-wrap gap-y-1.5" : ""} items-center`}
      >
        <span className="value quiet text-[0.79rem]">{bay?.name ?? ""}</span>
        {drive && (
          <>
            <MediaGlyph media={drive.media} />
            {verdict !== "good" && verdict !== "not known" && verdict && (
              <span className={`ml-auto ${narrow ? "" : "order-last"}`}>
                <HealthMark verdict={verdict} bare />
              </span>
            )}
            <span className={`value truncate text-[0.86rem] font-medium ${narrow ? "basis-full" : ""}`}>
              {shortSize(drive.sizeBytes)}
            </span>
          </>
        )}
      </span>
      <span aria-hidden="true" className={`mt-1 h-2 w-full ${drive ? HATCH(drive) : ""}`} />
    </button>
  );
}
