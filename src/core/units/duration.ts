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

/** "14:32" in a time zone of the IANA list. */
export const formatClock = (iso: string, timeZone: string): string =>
  new Intl.DateTimeFormat("en-GB", { hour: "2-digit", minute: "2-digit", timeZone }).format(new Date(iso));

/** "24 Nov 2026" in a time zone. */
export const formatDate = (iso: string, timeZone: string): string =>
  new Intl.DateTimeFormat("en-GB", { day: "numeric", month: "short", year: "numeric", timeZone }).format(
    new Date(iso),
  );

/** "24 Nov 2026, 14:32" in a time zone. */
export const formatDateTime = (iso: string, timeZone: string): string =>
  `${formatDate(iso, timeZone)}, ${formatClock(iso, timeZone)}`;
