import type { Account } from "../../identity";

/** What an answer file says of one thing, with its line. */
export interface Said<T> {
  value: T;
  line: number;
}

/** A line that was not taken, and why. */
export interface Untaken {
  line: number;
  text: string;
  why: string;
}

/** An account as a file has it; a hash is never taken along, only that there was one. */
export interface SaidAccount extends Omit<Account, "keys"> {
  keys: string[];
  hadHash: boolean;
  line: number;
}

/** An address that a file gives to a port. */
export interface SaidAddress {
  /** MAC or name of the port, as the file calls it; null where it leaves it open. */
  port: string | null;
  dynamic: boolean;
  /** Without its length. */
  address: string;
  gateway: string;
  nameServers: string[];
}

export const FORMATS = ["kickstart", "preseed", "autoinstall", "cloud-config"] as const;
export type AnswerFormat = (typeof FORMATS)[number];

/** What was read of an answer file, before anybody knows for which machine. */
export interface AnswersRead {
  format: AnswerFormat;
  hostName?: Said<string>;
  domain?: Said<string>;
  /** By its name on the sheet. */
  keyboard?: Said<string>;
  locale?: Said<string>;
  timeZone?: Said<string>;
  address?: Said<SaidAddress>;
  source?: Said<string>;
  proxy?: Said<string>;
  /** Groups under an "@". */
  components?: Said<string[]>;
  services?: Said<string[]>;
  /** Commands that the new system runs at the end. */
  finish?: Said<string[]>;
  /** Serial of the drive that the file looks for, blanks left out; null for none. */
  serial?: Said<string>;
  mode?: Said<"uefi" | "legacy">;
  accounts: SaidAccount[];
  untaken: Untaken[];
}

const LONGEST = 160;

/** What follows a word for a password in a line: whatever the line is about, it is not shown. */
const SECRET = /((?:password|passwd|rootpw|crypted)[\w-]*["']?[\s=:]+)\S.*$/is;

export function untaken(line: number, text: string, why: string): Untaken {
  const told = text.replace(SECRET, "$1…").replace(/\$\d\w?\$\S+/g, "…");
  return { line, text: told.length > LONGEST ? `${told.slice(0, LONGEST)} …` : told, why };
}

/** Name and domain of a full name. */
export function namesOf(full: string): { hostName: string; domain: string } {
  const at = full.indexOf(".");
  return at < 0
    ? { hostName: full, domain: "" }
    : { hostName: full.slice(0, at), domain: full.slice(at + 1) };
}

/** Groups whose members may elevate, by the names that families give them. */
const ADMIN_GROUPS = ["wheel", "sudo", "admin", "administrators"];

export const roleOf = (groups: readonly string[], shell: string): Account["role"] => {
  if (groups.some((group) => ADMIN_GROUPS.includes(group))) return "administrator";
  return /\/(nologin|false)$/.test(shell) ? "service" : "ordinary";
};
