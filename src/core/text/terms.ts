/** Stored values that people read in another word. The stored ones stay, since files and databases hold them. */
const TERMS: Readonly<Record<string, string>> = {
  stop: "blocker",
  caution: "warning",
  uefi: "UEFI",
  legacy: "legacy BIOS",
  "leave alone": "protected",
  "not told": "unspecified",
  "not asked": "unspecified",
  "not known": "unknown",
  "not known yet": "unknown",
  "not said": "unspecified",
  "media first in the boot order": "first in the permanent boot order",
  "off to install": "off for the installation",
  "maker's custom": "vendor-customised",
  "as the image": "as in the image",
  "super-user": "superuser",
  stick: "USB stick",
  disc: "optical disc",
  fresh: "fresh installation",
  upgrade: "in-place upgrade",
  convert: "conversion",
  wished: "recommended",
  "by hand": "manual",
  "changes by hand": "manual changes",
  fixed: "static",
  reserved: "DHCP reservation",
  dynamic: "DHCP",
  "fixed address": "with a static address",
  "dynamic address": "with DHCP",
  differs: "does not match",
  "not seen": "not verified",
  "not certain": "uncertain",
  seen: "confirmed by inspection",
  "taken as it is": "deviation accepted",
  "on the shelf": "in storage",
  bench: "test bench",
  "moves of guests": "guest migration",
  "at its console": "console",
  "by its controller": "management controller",
  "inside the site": "inside the site only",
  "relay in front": "relay or reverse proxy",
};

/** The standard term of a stored value; a value that has none is its own. */
export const term = (value: string): string => TERMS[value] ?? value;

/** The same for several, with commas between them. */
export const terms = (values: readonly string[]): string => values.map(term).join(", ");
