import { shown, term } from "../text";
import { daysInWords } from "../units";

/** What the forms call the parts of a field that holds a list of things, by the field and the part's key. */
export const PARTS: Readonly<Record<string, Readonly<Record<string, string>>>> = {
  "answers.accounts": {
    ...{ name: "", role: "role", logIn: "login by", keys: "public keys" },
    ...{ "keys.line": "", "keys.until": "valid until" },
  },
  "network.services": {
    ...{ name: "", protocol: "protocol", port: "port", from: "reachable from", logIn: "login method" },
    ...{ manages: "management access", why: "reason", until: "end date" },
    ...{ insteadOf: "less exposed options", hardened: "tested before opening" },
    ...{ "hardened.on": "on", "hardened.how": "result" },
  },
  "network.interfaces": {
    ...{ kind: "", name: "", on: "on", segment: "network", address: "address", mtu: "MTU" },
    ...{ mode: "mode", hash: "transmit hash policy", vlan: "VLAN", vlanAware: "VLAN-aware" },
    ...{ groups: "port groups", "groups.name": "", "groups.purpose": "purpose", "groups.segment": "network" },
  },
  "boot.settings": { key: "", found: "found", done: "done" },
  "boot.cards.readings": { at: "at", percent: "percentage shown" },
};

/** Keys that say nothing to a person, and parts that are as they are without being touched. */
const isSilent = (value: unknown): boolean =>
  value === null ||
  value === undefined ||
  value === "" ||
  value === false ||
  (Array.isArray(value) && value.length === 0) ||
  (typeof value === "object" && Object.keys(value).length === 0);

/**
 * A stored value of a field as its form shows it: its parts by their labels, those that are empty left out, and ids by
 * the names that `nameOf` knows.
 */
export function partWords(
  path: string,
  value: unknown,
  nameOf: (id: string) => string | undefined = () => undefined,
): string {
  const labels = PARTS[path] ?? {};
  const words = (one: unknown, at: string): string => {
    if (typeof one === "string") return nameOf(one) ?? daysInWords(shown(one));
    if (Array.isArray(one)) return one.map((o) => words(o, at)).join(at === "" ? "; " : ", ");
    if (typeof one !== "object" || one === null) return shown(one);
    const parts = Object.entries(one).flatMap(([key, part]) => {
      const own = at === "" ? key : `${at}.${key}`;
      const label = labels[own] ?? term(key);
      return isSilent(part) ? [] : [{ label, text: part === true ? "" : words(part, own) }];
    });
    // What names the thing stands in front.
    const name = parts.filter((p) => p.label === "").map((p) => p.text);
    const rest = parts.filter((p) => p.label !== "").map((p) => `${p.label} ${p.text}`.trim());
    return [...(name.length > 0 ? [name.join(" ")] : []), ...rest].join(", ");
  };
  return isSilent(value) ? shown(value) : words(value, "");
}
