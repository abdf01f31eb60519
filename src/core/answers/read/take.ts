import { term } from "../../text";
import type { Account } from "../../identity";
import { valueAt, type Edit } from "../../document";
import { driveLook, drivesOf, type OnMachine } from "../../machine";
import { contains, sourceProblem, type NetworkSlice } from "../../network";
import type { AnswersSlice } from "../slice";
import { untaken, type AnswersRead, type SaidAddress, type Untaken } from "./draft";

/** What a file can be taken over into. */
export interface TakeGround extends OnMachine {
  sheet: {
    answers: AnswersSlice;
    network: NetworkSlice;
    storage: { target: string | null };
    boot: { mode: string };
  };
  site: { segments: readonly { id: string; name: string; prefix: string }[] } | null;
}

/** A field of the sheet with what the file says of it. */
export interface Offered extends Edit {
  /** What the sheet says now, and what the file says, in words. */
  nowWords: string;
  words: string;
  line: number;
}

/** What a file has for a sheet: what differs, how many fields say the same already, and what is not taken. */
export interface AnswersOffer {
  format: AnswersRead["format"];
  offered: Offered[];
  same: number;
  untaken: Untaken[];
}

interface Field {
  path: string;
  now: unknown;
  value: unknown;
  words: string;
  line: number;
}

const plain = (serial: string): string => serial.replace(/\s+/g, "");

/** The planned drive by its serial; a file that names none leaves it to the sheet. */
function targetOf({ serial }: AnswersRead, ground: TakeGround): Field | Untaken | null {
  if (!serial) return null;
  const found = drivesOf(ground).filter((d) => d.serial && plain(d.serial) === serial.value);
  const [drive] = found;
  if (!drive || found.length > 1)
    return untaken(
      serial.line,
      "target of the file",
      ground.machine
        ? "no drive of this machine, or several drives, match the serial number in the file"
        : "no machine is chosen on the sheet, so its drives are unknown",
    );
  const { target } = ground.sheet.storage;
  return {
    ...{ path: "storage.target", now: target, value: drive.id, line: serial.line },
    words: "the drive of this machine with the serial number in the file",
  };
}

/** The port of a machine that a file names, by MAC or by the name that was seen. */
function portOf(named: string | null, { machine }: TakeGround): string | null {
  if (named === null) return null;
  const port = (machine?.document.facts.ports ?? []).find(
    ({ mac, seenAs }) => mac === named.toLowerCase() || (seenAs !== null && seenAs === named),
  );
  return port?.mac ?? null;
}

function addressFields(said: SaidAddress, line: number, ground: TakeGround): (Field | Untaken)[] {
  const { network } = ground.sheet;
  const of = (path: string, now: unknown, value: unknown, words: string): Field => ({
    ...{ path: `network.${path}`, now, value, words, line },
  });
  const port = portOf(said.port, ground);
  const ports =
    said.port === null
      ? []
      : port === null
        ? [untaken(line, said.port, "no port of this machine has this MAC or name")]
        : [of("port", network.port, port, said.port)];
  if (said.dynamic) return [...ports, of("school", network.school, "dynamic", "DHCP")];
  const segment = ground.site?.segments.find(({ prefix }) => contains(prefix, said.address));
  return [
    ...ports,
    of("school", network.school, "fixed", "static address"),
    ...(segment
      ? [of("segment", network.segment, segment.id, segment.name)]
      : [untaken(line, said.address, "in none of the networks of the site")]),
    of("address", network.address, said.address, said.address),
    of("gateway", network.gateway, said.gateway, said.gateway || "none"),
    of("nameServers", network.nameServers, said.nameServers, said.nameServers.join(", ") || "none"),
  ];
}

/** The accounts of a file; what the sheet knows of a key stays with it. */
function accountsOf(read: AnswersRead, { sheet }: TakeGround): Field | null {
  if (read.accounts.length === 0) return null;
  const known = sheet.answers.accounts.flatMap(({ keys }) => keys);
  const value = read.accounts.map(({ name, role, logIn, keys }): Account => ({
    ...{ name, role, logIn },
    keys: keys.map((line) => known.find((k) => k.line === line) ?? { line, until: "" }),
  }));
  return {
    ...{ path: "answers.accounts", now: sheet.answers.accounts, value, words: peopleWords(value) },
    line: Math.min(...read.accounts.map(({ line }) => line).filter((line) => line > 0), Infinity),
  };
}

const peopleWords = (accounts: readonly Account[]): string =>
  accounts
    .map(
      ({ name, role, logIn }) =>
        `${name}, ${term(role)}, ${logIn === "none" ? "no login" : `login by ${logIn}`}`,
    )
    .join("; ");

/** What a sheet says in a field that a file may fill. */
function nowWords(path: string, ground: TakeGround): string {
  const { sheet, site } = ground;
  const target = drivesOf(ground).find(({ id }) => id === sheet.storage.target);
  const plain: Readonly<Record<string, string>> = {
    "answers.accounts": peopleWords(sheet.answers.accounts),
    "network.segment": site?.segments.find(({ id }) => id === sheet.network.segment)?.name ?? "",
    "network.nameServers": sheet.network.nameServers.join(", "),
    "answers.components": sheet.answers.components.join(", "),
    "answers.services": sheet.answers.services.join(", "),
    "answers.finish": sheet.answers.finish.join(" ; "),
    "storage.target": target ? driveLook(target) : "",
  };
  const value = plain[path] ?? valueAt(sheet, path);
  return typeof value === "string" && value !== "" ? value : "nothing";
}

const isUntaken = (one: Field | Untaken): one is Untaken => "why" in one;

/** Compares what a file says with a sheet: nothing is changed by it. */
export function offerOf(read: AnswersRead, ground: TakeGround): AnswersOffer {
  const { answers, boot } = ground.sheet;
  const simple = (["hostName", "domain", "keyboard", "locale", "timeZone"] as const).flatMap((key) => {
    const said = read[key];
    return said
      ? [{ path: `answers.${key}`, now: answers[key], value: said.value, words: said.value, line: said.line }]
      : [];
  });
  const lists = (["components", "services", "finish"] as const).flatMap((key) => {
    const said = read[key];
    const words = said?.value.join(key === "finish" ? " ; " : ", ") || "none";
    return said
      ? [{ path: `answers.${key}`, now: answers[key], value: said.value, words, line: said.line }]
      : [];
  });
  const addresses = (["source", "proxy"] as const).flatMap((key): (Field | Untaken)[] => {
    const said = read[key];
    const problem = said ? sourceProblem(said.value) : null;
    if (!said) return [];
    // One with a password in it is not taken, and not shown.
    if (problem !== null) return [untaken(said.line, key, problem)];
    return [
      {
        path: `answers.${key}`,
        now: answers[key],
        value: said.value,
        words: said.value || "none",
        line: said.line,
      },
    ];
  });
  const all: (Field | Untaken | null)[] = [
    ...simple,
    ...addresses,
    ...lists,
    accountsOf(read, ground),
    ...(read.address ? addressFields(read.address.value, read.address.line, ground) : []),
    read.mode
      ? {
          path: "boot.mode",
          now: boot.mode,
          value: read.mode.value,
          words: read.mode.value,
          line: read.mode.line,
        }
      : null,
    targetOf(read, ground),
  ];
  const fields = all.flatMap((one) => (one && !isUntaken(one) ? [one] : []));
  const differ = fields.filter(({ now, value }) => JSON.stringify(now) !== JSON.stringify(value));
  const hashes = read.accounts.filter(({ hadHash }) => hadHash);
  return {
    format: read.format,
    offered: differ.map(({ path, now, value, words, line }) => ({
      ...{ path, before: now, after: value, words, nowWords: nowWords(path, ground) },
      line: Number.isFinite(line) ? line : 1,
    })),
    same: fields.length - differ.length,
    untaken: [
      ...read.untaken,
      ...all.flatMap((one) => (one && isUntaken(one) ? [one] : [])),
      ...hashes.map(({ name, line }) =>
        untaken(line, name, "its password is not imported: store it on the Passwords page"),
      ),
    ].sort((a, b) => a.line - b.line),
  };
}
