/** Seconds for a person: "40 s", "6 min", "1 h 25 min", "3 d 2 h". */
export function formatDuration(seconds: number): string {
  const s = Math.max(0, Math.round(seconds));
  if (s < 90) return `${s} s`;
  const minutes = Math.round(s / 60);
  if (minutes < 60) return `${minutes} min`;
  const hours = Math.floor(minutes / 60);
  if (hours < 48) return minutes % 60 === 0 ? `${hours} h` : `${hours} h ${minutes % 60} min`;
  const days = Math.floor(hours / 24);
  return hours % 24 === 0 ? `${days} d` : `${days} d ${hours % 24} h`;
}

export const addSeconds = (iso: string, seconds: number): string =>
  new Date(Date.parse(iso) + Math.round(seconds * 1000)).toISOString();

/** Seconds from one ISO time to another; negative when the second is earlier. */
export const secondsBetween = (from: string, to: string): number =>
  (Date.parse(to) - Date.parse(from)) / 1000;

const formatters = new Map<string, (iso: string) => string>();

/** Formats by parts and zone. A zone that this program does not know is told as UTC, in the text itself. */
function formatter(parts: keyof typeof PARTS, timeZone: string): (iso: string) => string {
  const key = `${parts} ${timeZone}`;
  const known = formatters.get(key);
  if (known) return known;
  const make = (zone: string) => new Intl.DateTimeFormat("en-GB", { ...PARTS[parts], timeZone: zone });
  let format: (iso: string) => string;
  try {
    const own = make(timeZone);
    format = (iso) => own.format(new Date(iso));
  } catch {
    const utc = make("UTC");
    format = (iso) => `${utc.format(new Date(iso))} UTC`;
  }
  formatters.set(key, format);
  return format;
}

const PARTS = {
  clock: { hour: "2-digit", minute: "2-digit" },
  date: { day: "numeric", month: "short", year: "numeric" },
  day: { day: "2-digit", month: "2-digit", year: "numeric" },
} as const;

/** "14:32" in a time zone of the IANA list. */
export const formatClock = (iso: string, timeZone: string): string => formatter("clock", timeZone)(iso);

/** "24 Nov 2026" in a time zone. */
export const formatDate = (iso: string, timeZone: string): string => formatter("date", timeZone)(iso);

/** "24 Nov 2026, 14:32" in a time zone. */
export const formatDateTime = (iso: string, timeZone: string): string =>
  `${formatDate(iso, timeZone)}, ${formatClock(iso, timeZone)}`;

/** "24 Nov 2026" of a day without a time, such as one that a person typed ("2026-11-24"). */
export const formatDay = (day: string): string => formatDate(`${day}T12:00:00Z`, "UTC");

const DAY = /(?<![\w-])\d{4}-(?:0[1-9]|1[0-2])-(?:0[1-9]|[12]\d|3[01])(?![\w-])/g;

/** A text whose days are written as files write them, with the days as people write them. */
export const daysInWords = (text: string): string => text.replace(DAY, formatDay);

/** The day of a moment where something stands; in UTC where that is not known. */
export const localDay = (iso: string, { timeZone = "UTC" }: { timeZone?: string }): string =>
  dayIn(iso, timeZone);

/** "2026-11-24": the day that it is in a time zone, for comparing with dates. */
export function dayIn(iso: string, timeZone: string): string {
  const [day = "", month = "", year = ""] = formatter("day", timeZone)(iso).split("/");
  return `${year}-${month}-${day}`;
}

/** "2026-11-26T02-14-05": a time in UTC as it may stand in the name of a file. */
export const fileStamp = (iso: string): string => iso.slice(0, 19).replaceAll(":", "-");

/** True for a name of the IANA time zone list that this runtime knows. */
export function isTimeZone(name: string): boolean {
  try {
    return name !== "" && new Intl.DateTimeFormat("en-GB", { timeZone: name }) !== null;
  } catch {
    return false;
  }
}
