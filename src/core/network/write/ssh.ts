import { oneLine } from "./dhcp";
import { hostKeyOf } from "../host-key";
import type { WrittenFile } from "./host-plan";
import { fullName, namedHosts, writable, type SitePlan } from "./site-plan";

/** Who logs in, by the host's address; a host without one is left to the caller's own name. */
export type Users = ReadonlyMap<string, string>;

/** A user name that may stand in the file: POSIX's portable characters, no dash first. */
const isUser = (name: string): boolean => /^[A-Za-z0-9_][A-Za-z0-9._-]{0,31}$/.test(name);

/** Sections of ~/.ssh/config: a machine is reached by its name, and its key is kept under that name, not under its address. */
export function writeSshConfig(given: SitePlan, users: Users = new Map()): WrittenFile {
  const plan = writable(given);
  const sections = namedHosts(plan).map((h) => {
    const user = users.get(h.address) ?? "";
    return [
      `Host ${[h.label, ...(h.domain ? [fullName(h)] : [])].join(" ")}`,
      `    HostName ${h.address}`,
      `    HostKeyAlias ${fullName(h)}`,
      ...(isUser(user) ? [`    User ${user}`] : []),
    ].join("\n");
  });
  return {
    path: "~/.ssh/config",
    text: [`# Machines of ${oneLine(plan.name)}, written by Derrick.`, ...sections, ""].join("\n\n"),
  };
}

/** Lines for known_hosts, of keys that were read; what is no public key is left out. */
export function writeKnownHosts(given: SitePlan, keys: ReadonlyMap<string, readonly string[]>): WrittenFile {
  const plan = writable(given);
  const lines = namedHosts(plan).flatMap((h) =>
    (keys.get(h.address) ?? [])
      .flatMap((key) => hostKeyOf(key) ?? [])
      .map((key) => `${[fullName(h), ...(h.domain ? [h.label] : []), h.address].join(",")} ${key}`),
  );
  return { path: "~/.ssh/known_hosts", text: lines.map((l) => `${l}\n`).join("") };
}
