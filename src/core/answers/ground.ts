import type { Profile } from "../image";
import type { OnMachine } from "../machine";
import type { Parameter } from "../parameter";
import type { AnswersSlice } from "./slice";

/** A password that somebody has given a mark of: what it opens, and what else the same one opens. */
export interface SecretMark {
  opens: string;
  same: readonly string[];
}

/** What the rules about names, accounts and the installer's questions look at. */
export interface AnswersGround extends OnMachine {
  sheet: {
    answers: AnswersSlice;
    image: { way: string };
    network: { services: readonly { name: string; port: number; until: string | null }[] };
  };
  profile: Profile | null;
  site: {
    name: string;
    domain: string;
    timeZone: string;
    keyboard: string;
    /** How hosts are called there, by the role of the machine. */
    naming: readonly { role: string | null; pattern: string }[];
    networkBoot: "off" | "on";
    parameters: readonly Parameter[];
  } | null;
  /** The day where the machine stands. */
  today: string;
  /** What is known of the passwords of this build, without any of them. */
  secrets: readonly SecretMark[];
  /** Who else holds what this sheet claims; `here` at the same site. */
  rivals: readonly { kind: string; key: string; owner: string; here: boolean }[];
}
