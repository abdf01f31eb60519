import type { Account } from "./accounts";
import { readPublicKey } from "./public-key";

/** A machine with the accounts that its last sheet gives it. */
export interface KeyHolder {
  build: string;
  number: string;
  machineId: string;
  machine: string;
  siteId: string;
  accounts: readonly Account[];
}

/** One machine that a key opens: as which accounts, and until which day; "" where no day is set. */
export interface KeyDoor extends Omit<KeyHolder, "accounts"> {
  account: string;
  until: string;
}

export interface KeyRow {
  type: string;
  blob: string;
  /** Whose it is, as its comment says; "" where it says nothing. */
  whose: string;
  doors: KeyDoor[];
}

/** A key with its fingerprint as ssh-keygen tells it, and how many machines of other sites it opens too. */
export interface SiteKey extends KeyRow {
  fingerprint: string;
  elsewhere: number;
}

/** A machine with a sheet; `isRead` is false where its accounts could not be read. */
export interface KeyedMachine {
  id: string;
  name: string;
  build: string;
  number: string;
  isRead: boolean;
}

/** A secret parameter, and the sheets that it was sealed for; `shared` where the same value was sealed for another. */
export interface SiteSecret {
  name: string;
  sheets: {
    build: string;
    number: string;
    machine: string;
    state: "sealed" | "destroyed";
    shared: boolean;
  }[];
}

/** Which key opens which machines, those that open the most first. What does not read as a key is on no machine either. */
export function keyMatrix(holders: readonly KeyHolder[]): KeyRow[] {
  const rows = new Map<string, KeyRow>();
  for (const { accounts, ...machine } of holders)
    for (const { name, role, keys } of accounts)
      // A service has no shell, so that its file holds none of its keys.
      for (const { line, until } of role === "service" ? [] : keys) {
        const key = readPublicKey(line);
        if (!key.ok) continue;
        const { type, blob, whose } = key.value;
        const row = rows.get(blob) ?? { type, blob, whose, doors: [] };
        rows.set(blob, {
          ...row,
          whose: row.whose || whose,
          doors: [...row.doors, { ...machine, account: name, until }],
        });
      }
  const reach = ({ doors }: KeyRow): number => new Set(doors.map((d) => d.machineId)).size;
  return [...rows.values()].sort((a, b) => reach(b) - reach(a) || (a.whose < b.whose ? -1 : 1));
}
