"use client";

import { createContext, useContext, type ReactNode } from "react";
import {
  formatBinaryBytes,
  formatBytes,
  formatDate,
  formatDateTime,
  formatDay,
  formatDecimalBytes,
} from "@/core/units";
import type { Units } from "./units";

/** How the person who looks reads times and sizes. */
export interface Person {
  /** The time zone of the sites, where they have one in common; "UTC" where they have several, or none. */
  timeZone: string;
  units: Units;
}

const Here = createContext<Person>({ timeZone: "UTC", units: "both" });

export const PersonProvider = ({ person, children }: { person: Person; children: ReactNode }) => (
  <Here.Provider value={person}>{children}</Here.Provider>
);

export const useHomeZone = (): string => useContext(Here).timeZone;

const isDay = (iso: string): boolean => iso.length === "2026-11-24".length;

/** A day, where the thing is: "24 Nov 2026"; the moment as files write it on hover. */
export function Day({ at, timeZone }: { at: string; timeZone?: string }) {
  const home = useHomeZone();
  const zone = timeZone ?? home;
  return (
    <time dateTime={at} title={isDay(at) ? at : `${at} (UTC)`} className="whitespace-nowrap">
      {isDay(at) ? formatDay(at) : formatDate(at, zone)}
    </time>
  );
}

/** A day with its time; the zone is named where it is not that of the sites. */
export function Moment({ at, timeZone }: { at: string; timeZone?: string }) {
  const home = useHomeZone();
  const zone = timeZone ?? home;
  return (
    <time dateTime={at} title={`${at} (UTC)`} className="whitespace-nowrap">
      {formatDateTime(at, zone)}
      {(zone !== home || zone === "UTC") && ` ${zone}`}
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
