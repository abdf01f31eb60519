import type { Editable } from "../document";
import { siteSchema, type Site } from "./site";

/** A site is written in its form, whole. */
export const siteEditable: Editable<Site, typeof siteSchema> = {
  ...{ kind: "site", schema: siteSchema },
  partOf: (site) => site,
  put: (_, part) => part,
};

/** What people call the fields of a site, by their paths. */
export const SITE_NAMES: Readonly<Record<string, string>> = {
  name: "Name",
  room: "Room",
  domain: "Domain",
  timeZone: "Time zone",
  locale: "Locale",
  keyboard: "Keyboard layout",
  addressSchool: "Server addresses",
  link: "Link speed of remote consoles",
  "link.bitsPerSecond": "Link speed of remote consoles",
  "link.roundTripSeconds": "Round-trip time",
  segments: "Networks",
  devices: "Other devices",
  cables: "Cables",
  circuits: "Circuits",
  tariff: "Electricity price per kWh",
  "tariff.perKilowattHour": "Electricity price per kWh",
  "tariff.currency": "Currency",
  proxy: "Proxy",
  sources: "Package sources",
  networkBoot: "Network boot",
  parameters: "Parameters",
  naming: "Host names",
  firmware: "Firmware settings",
  notes: "Notes",
};
