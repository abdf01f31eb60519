import type { AnswerScript, Profile, ScriptLanguage, ScriptSection } from "../../image";
import { netmaskOf, shellWord } from "../../network";
import { placeholdersOf } from "../../text";
import type { Gap, IntentAccount, IntentDrive, IntentPath, ScriptIntent } from "../intent";
import { accountNotes } from "./accounts";
import { linesFrom, type AnswerFile, type AnswerLine } from "./line";
import { word } from "./word";

type Values = Readonly<Record<string, string>>;

const ENTITIES: Readonly<Record<string, string>> = {
  "&": "&amp;",
  "<": "&lt;",
  ">": "&gt;",
  '"': "&quot;",
  "'": "&apos;",
};

/** How a value is written in each language; nothing in it is read as anything but itself. */
const WRITTEN: Readonly<Record<ScriptLanguage, (value: string) => string>> = {
  words: word,
  shell: shellWord,
  xml: (value) => value.replace(/[&<>"']/g, (sign) => ENTITIES[sign] ?? ""),
};

/** What no line of a file can hold: what ends it, and what XML 1.0 (2.2) forbids. */
const UNWRITABLE = /[\p{Cc}\p{Cs}\u2028\u2029\ufffe\uffff]/u;

/** Values that every line may name; "" where the sheet has none. */
function valuesOf(intent: ScriptIntent): Values {
  const { hostName, domain, target, port, system } = intent;
  const fixed = port.address.how === "fixed" ? port.address : null;
  return {
    ...{ "host.name": hostName, "host.domain": domain },
    "host.fqdn": [hostName, domain].filter(Boolean).join("."),
    ...{ "keyboard.layout": intent.keyboard, "locale.name": intent.locale, "time.zone": intent.timeZone },
    ...{ "system.version": system.version, "boot.mode": intent.mode },
    ...{ "account.super": system.superUser, "target.layout": target.layout },
    ...{ "source.url": intent.software.source, "source.proxy": intent.software.proxy },
    "edition.name": intent.edition,
    "target.count": String(target.drives.filter((d) => d.role === "member").length),
    ...{ "host.mac": port.mac, "host.address": fixed?.address ?? "", "host.gateway": fixed?.gateway ?? "" },
    "host.prefix": fixed ? String(fixed.length) : "",
    "host.netmask": fixed
      ? fixed.address.includes(":")
        ? String(fixed.length)
        : netmaskOf(fixed.length)
      : "",
  };
}

const driveValues = ({ drive }: IntentDrive, i: number): Values => ({
  "drive.serial": (drive.serial ?? "").trim(),
  "drive.bytes": String(drive.sizeBytes),
  "drive.wwn": drive.wwn ?? "",
  "drive.number": String(i + 1),
});

const isOf = ({ when }: ScriptSection, { role, hash, logIn }: IntentAccount): boolean =>
  (when.role === undefined || when.role.includes(role)) &&
  (when.hash === undefined || when.hash === (hash !== null && logIn !== "none"));

/** What a section is written for, one after the other, each with the values of its own. */
function turnsOf(section: ScriptSection, intent: ScriptIntent): Values[] {
  const { accounts, target, port, commands, system, software } = intent;
  const drives = (role: IntentDrive["role"]) => target.drives.filter((d) => d.role === role).map(driveValues);
  const own = accounts.filter((a) => isOf(section, a));
  switch (section.for) {
    case "once":
      return [{}];
    case "drive":
      return drives("member");
    case "spare":
      return drives("spare");
    case "account":
      return own.map(({ name, hash }) => ({
        ...{ "account.name": name, "account.hash": hash ?? "", "account.group": system.adminGroup },
      }));
    case "key":
      return own.flatMap(({ name, keys }) =>
        keys.map((key) => ({ "account.name": name, "account.key": key })),
      );
    case "name server":
      return (port.address.how === "fixed" ? port.address.nameServers : []).map((server, i) => ({
        ...{ "server.address": server, "server.number": String(i + 1) },
      }));
    case "component":
      return software.components.map((name) => ({ "component.name": name }));
    case "service":
      return software.services.map((name) => ({ "service.name": name }));
    case "network command":
      return commands.map((command) => ({ "network.command": command }));
    case "command":
      return software.finish.map((command) => ({ "command.line": command }));
  }
}

/** Whether what a section asks of the whole build is so. */
function applies({ when }: ScriptSection, { mode, target, port, software }: ScriptIntent): boolean {
  const { address } = port;
  const members = target.drives.filter((d) => d.role === "member").length;
  return (
    (when.address === undefined || (when.address === "fixed") === (address.how === "fixed")) &&
    (when.gateway === undefined || when.gateway === (address.how === "fixed" && address.gateway !== null)) &&
    (when.mode === undefined || when.mode === mode) &&
    (when.source === undefined || when.source === (software.source !== "")) &&
    (when.proxy === undefined || when.proxy === (software.proxy !== "")) &&
    (when.drives === undefined || (when.drives === "one") === (members === 1))
  );
}

/** Values that a line may name though the sheet has none: then there is nothing to be said. */
const MAY_LACK = new Set(["host.domain"]);

/** One line filled in, or what stands in the way of it. */
function filled(
  line: string,
  values: Values,
  language: ScriptLanguage,
  from: IntentPath | undefined,
): AnswerLine | Gap {
  const names = placeholdersOf(line);
  const at = (name: string): IntentPath =>
    name.startsWith("drive.")
      ? "storage.target"
      : /^host\.(mac|address|prefix|netmask|gateway)$/.test(name)
        ? "network.address"
        : (from ?? "image.id");
  const lacks = names.find((name) => !values[name] && !MAY_LACK.has(name));
  if (lacks)
    return {
      path: at(lacks),
      message: `the profile has a line with {${lacks}}, and the sheet has no such value: add a condition to its section`,
    };
  const bad = names.find((name) => UNWRITABLE.test(values[name] ?? ""));
  if (bad) return { path: at(bad), message: `{${bad}} has a character that no line of a file can contain` };
  const text = line.replace(/\{([A-Za-z.]+)\}/g, (whole, name: string) => {
    const value = values[name];
    if (value === undefined) return whole;
    // A line of the family's own tool, and a command, are lines already: their words are quoted as they stand.
    return (name === "network.command" || name === "command.line") && language !== "xml"
      ? value
      : WRITTEN[language](value);
  });
  return { text, from: from ?? null };
}

/** Sources, packages and services that the sheet wants and no line names. */
function softwareByHand(
  { source, proxy, components, services, finish }: ScriptIntent["software"],
  sections: readonly ScriptSection[],
  named: ReadonlySet<string>,
): Gap[] {
  const later = "not supported by this format: do it once the system runs";
  const has = (kind: ScriptSection["for"]): boolean => sections.some((s) => s.for === kind);
  const wants: [path: IntentPath, wanted: boolean, words: string][] = [
    ["answers.source", source !== "" && !named.has("source.url"), "the package source"],
    ["answers.proxy", proxy !== "" && !named.has("source.proxy"), "the proxy"],
    ["answers.components", components.length > 0 && !has("component"), components.join(", ")],
    ["answers.services", services.length > 0 && !has("service"), services.join(", ")],
    [
      "answers.finish",
      finish.length > 0 && !has("command"),
      `${finish.length === 1 ? "the command" : "the commands"} at the end of the installation`,
    ],
  ];
  return wants.flatMap(([path, wanted, words]) => (wanted ? [{ path, message: `${words}: ${later}` }] : []));
}

/** What the words of the profile have no line for, though the sheet wants it. */
function byHandOf(
  intent: ScriptIntent,
  sections: readonly ScriptSection[],
  { screens, firstBoot, answerScript }: Profile,
): Gap[] {
  const { accounts, target } = intent;
  const named = new Set(sections.flatMap((s) => s.lines.flatMap(placeholdersOf)));
  // What the installer never asks, nobody has to type.
  const asked = new Set(
    [...screens, ...firstBoot].flatMap((s) => s.type.flatMap((t) => placeholdersOf(t.value))),
  );
  const unless = (names: readonly string[], path: IntentPath, message: string): Gap[] =>
    !names.some((name) => asked.has(name)) || names.some((name) => named.has(name))
      ? []
      : [{ path, message }];
  const inWords = (kind: ScriptSection["for"], account: IntentAccount): boolean =>
    sections.some((s) => s.for === kind && isOf(s, account));
  const spares = target.drives.filter((d) => d.role === "spare").length;
  return [
    ...intent.beside,
    ...unless(
      ["host.name", "host.fqdn"],
      "answers.hostName",
      "type the host name: this format does not support it",
    ),
    ...unless(
      ["keyboard.layout"],
      "answers.keyboard",
      "choose the keyboard layout: this format does not support it",
    ),
    ...unless(["locale.name"], "answers.locale", "choose the language: this format does not support it"),
    ...unless(["time.zone"], "answers.timeZone", "choose the time zone: this format does not support it"),
    ...(spares > 0 && !sections.some((s) => s.for === "spare")
      ? [
          {
            path: "storage.target" as const,
            message: `add ${spares} hot spares once the system runs`,
          },
        ]
      : []),
    ...(intent.hasInterfaces && !sections.some((s) => s.for === "network command")
      ? [
          {
            path: "network.interfaces" as const,
            message: "the interfaces are created at the first boot, from zone E",
          },
        ]
      : []),
    ...softwareByHand(intent.software, sections, named),
    ...(answerScript?.leaves ?? []).map((message): Gap => ({ path: "image.id", message })),
    ...accounts.flatMap((account): Gap[] => {
      const { name, hash, logIn, keys } = account;
      const isAsked = logIn === "password" && !hash;
      if (!isAsked && !inWords("account", account))
        return [
          {
            path: "answers.accounts",
            message: `create ${name} once the system runs: this format does not support it`,
          },
        ];
      const notes = accountNotes(account, "on the screen of the installer");
      return keys.length > 0 && !inWords("key", account)
        ? [...notes, { path: "answers.accounts", message: `add the keys of ${name} once the system runs` }]
        : notes;
    }),
  ];
}

/** Which sections a layout has no line for: half a target would be another one. */
function targetGap(intent: ScriptIntent, sections: readonly ScriptSection[]): Gap[] {
  const isNamed = sections.some(
    (s) => s.for === "drive" && s.lines.some((l) => l.includes("{drive.serial}")),
  );
  return isNamed
    ? []
    : [
        {
          path: "storage.layout",
          message: `the profile does not support this target (${intent.target.layout}): choose it on the screen`,
        },
      ];
}

/** The answer file of an installer in the words that its profile has for it; what they lack comes back as gaps. */
export function writeOwnWords(
  intent: ScriptIntent,
  script: AnswerScript,
  profile: Profile,
): AnswerFile | Gap[] {
  const sections = script.sections.filter((s) => applies(s, intent));
  const always = valuesOf(intent);
  const made = sections.flatMap((section) =>
    turnsOf(section, intent).flatMap((own) =>
      section.lines.map((line) => filled(line, { ...always, ...own }, script.language, section.from)),
    ),
  );
  const gaps = [...targetGap(intent, sections), ...made.filter((m): m is Gap => "message" in m)];
  if (gaps.length > 0) return gaps;
  return {
    name: `${intent.hostName}${script.ending}`,
    lines: made.flatMap((m) => ("text" in m ? linesFrom(m.from, m.text) : [])),
    byHand: byHandOf(intent, sections, profile),
  };
}
