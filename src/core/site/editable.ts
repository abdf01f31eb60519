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
  keyboard: "Keyboard",
  addressSchool: "Server addresses",
  link: "Link of remote consoles",
  "link.bitsPerSecond": "Link of remote consoles",
  "link.roundTripSeconds": "Round trip",
  segments: "Networks",
  devices: "Things that are no machines",
  cables: "Cables",
  circuits: "Circuits",
  tariff: "Price of a kWh",
  "tariff.perKilowattHour": "Price of a kWh",
  "tariff.currency": "Currency",
  proxy: "Proxy",
  sources: "Sources of packages",
  networkBoot: "Network boot",
  parameters: "Parameters",
  naming: "Host names",
  firmware: "Firmware settings",
  notes: "Notes",
};
