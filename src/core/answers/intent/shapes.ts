import type { Path } from "../../document";
import type { Account } from "../../identity";
import type { Layout, Partitioning } from "../../image";
import type { Drive } from "../../machine";
import type { HostPlan, LinkAddress, NetworkSlice, PlannedOn } from "../../network";
import type { Parameter } from "../../parameter";
import type { PlannedPart, StorageGround, StorageSlice } from "../../storage";
import type { AnswersSlice } from "../slice";
import type { Software } from "../software";

/** What an answer file is written from: the sheet, and whatever of it other stages have worked out. */
export type IntentGround = StorageGround &
  PlannedOn & { site?: { parameters: readonly Parameter[] } | null } & {
    sheet: { answers: AnswersSlice; handOver: { licence: string } };
  };

/** A field of the sheet by its path. */
export type IntentPath =
  | Path<{ answers: AnswersSlice; storage: StorageSlice; network: NetworkSlice }>
  | "image.id"
  | "boot.mode"
  | "handOver.licence";

/** What the installer would have to ask, or what the sheet says in a way that no file can say; with the field. */
export interface Gap {
  path: IntentPath;
  message: string;
}

/** Either what was drawn, or all that is open and nothing else. */
export type Drawn<T> = { ok: true; intent: T } | { ok: false; gaps: Gap[] };

/** A part of the target as a file makes it. */
export interface IntentPart {
  name: string;
  use: Partitioning["parts"][number]["use"];
  fs: PlannedPart["fs"];
  bytes: number;
  /** Its rule gives it all that the others leave. */
  takesRest: boolean;
  volumes: IntentPart[];
}

/** An account as a file makes it. */
export interface IntentAccount extends Pick<Account, "name" | "role" | "logIn"> {
  /** Lines of its public keys, each of which was read. */
  keys: string[];
  /** The hash of its password, in the form of crypt(3); null where nobody has sealed one: then the installer asks. */
  hash: string | null;
}

/** Hashes of passwords by the names of their accounts. They are no part of the plan: whoever writes a file brings them. */
export type Hashes = ReadonlyMap<string, string>;

/** What a system is to be called, how it speaks and who opens it. Every text of it is one line without control characters. */
export interface SystemIntent {
  system: {
    profile: string;
    name: string;
    version: string;
    screen: "graphical" | "text";
    adminGroup: string;
    superUser: string;
  };
  hostName: string;
  domain: string;
  keyboard: string;
  locale: string;
  timeZone: string;
  software: Software;
  /** As the family calls it; "" where its installer asks for none. */
  edition: string;
  accounts: IntentAccount[];
}

/** A drive that the system is installed on. */
export interface IntentDrive {
  drive: Drive;
  role: "member" | "spare";
  /** A consent to what stood there once is none to what may stand there by now. */
  mayErase: boolean;
}

/** Which drives are written and which are not. */
export interface TargetIntent {
  mode: "uefi" | "legacy";
  target: {
    /** Never empty; the first is the one that the sheet calls the target. */
    drives: [IntentDrive, ...IntentDrive[]];
    layout: Layout;
    table: "gpt" | "dos";
    /** How each drive is cut; empty where the installer does that by itself. */
    parts: IntentPart[];
  };
  /** Drives that the file must not reach. */
  spared: Drive[];
  /** What is no part of an installation, whatever the format: it is done beside it. */
  beside: Gap[];
}

/** What an installation is to become, in the words of no file format. */
export interface InstallIntent extends SystemIntent, TargetIntent {
  network: HostPlan;
  /** Nobody stands at the machine when its installer ends: it starts anew by itself. */
  restarts: boolean;
}

/** The same for an installer whose words stand in its profile: the port that it is managed by, and the lines of its own tool. */
export interface ScriptIntent extends SystemIntent, TargetIntent {
  port: { mac: string; address: LinkAddress };
  commands: string[];
  /** Whether the sheet wants interfaces beside that port. */
  hasInterfaces: boolean;
}
