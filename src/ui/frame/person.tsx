"use client";

import { createContext, useContext, type ReactNode } from "react";
import { formatBinaryBytes, formatBytes, formatDecimalBytes } from "@/core/units";
import type { Units } from "./units";

/** How the person who looks reads dates and sizes. */
export interface Person {
  /** A language tag, as the browser asks for it. */
  locale: string;
  units: Units;
}

const Here = createContext<Person>({ locale: "en-GB", units: "both" });

export const PersonProvider = ({ person, children }: { person: Person; children: ReactNode }) => (
  <Here.Provider value={person}>{children}</Here.Provider>
);

const dayOf = (iso: string, locale: string, timeZone: string): string =>
  new Intl.DateTimeFormat(locale, { day: "numeric", month: "short", year: "numeric", timeZone }).format(
    new Date(iso.length === "2026-11-24".length ? `${iso}T12:00:00Z` : iso),
  );

const momentOf = (iso: string, locale: string, timeZone: string): string =>
  new Intl.DateTimeFormat(locale, { dateStyle: "medium", timeStyle: "short", timeZone }).format(
    new Date(iso),
  );

/**
 * A day as this person writes days, where the thing is; the ISO form on hover. Server and browser may write a language a
 * little differently: what the server wrote stays then.
 */
export function Day({ at, timeZone = "UTC" }: { at: string; timeZone?: string }) {
  const { locale } = useContext(Here);
  return (
    <time dateTime={at} title={`${at} ${timeZone}`} className="whitespace-nowrap" suppressHydrationWarning>
      {dayOf(at, locale, timeZone)}
    </time>
  );
}

/** A day with its time. */
export function Moment({ at, timeZone = "UTC" }: { at: string; timeZone?: string }) {
  const { locale } = useContext(Here);
  return (
    <time dateTime={at} title={`${at} ${timeZone}`} className="whitespace-nowrap" suppressHydrationWarning>
      {momentOf(at, locale, timeZone)}
      {timeZone === "UTC" && " UTC"}
    </time>
  );
}

/** A size as this person wants sizes; both forms on hover and on paper, where the other may be what is compared. */
export function Size({ bytes }: { bytes: number }) {
  const { units } = useContext(Here);
  if (units === "both" || bytes < 1000) return <>{formatBytes(bytes)}</>;
  const [own, other] =
    units === "decimal"
      ? [formatDecimalBytes(bytes), formatBinaryBytes(bytes)]
      : [formatBinaryBytes(bytes), formatDecimalBytes(bytes)];
  return (
    <span title={formatBytes(bytes)}>
      {own}
      <span className="hidden print:inline"> ({other})</span>
    </span>
  );
}
