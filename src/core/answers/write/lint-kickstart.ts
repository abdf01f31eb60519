import { own } from "../../text";

/** What a kickstart file must hold to, by the format's own documentation; each with the words of its breach. */
export const KICKSTART_RULES = {
  line: "a line contains a control character, or the last line has no end",
  quotes: "a quotation is not closed in its line",
  section: "a section is unknown, nested, or not closed",
  command: "unknown command",
  option: "unknown option, or an option without its value",
  missing: "the installer would ask for it: the command is missing",
  include: "an included file is not written by a script of this file",
  stops: "the installation must end if a pre-installation script fails",
  letter: "a drive is identified by its device name, which can change",
  mount: "two partitions have the same mount point, or none has /",
  group: "a volume or group uses a missing part",
  array: "an array has a missing or shared member, or too few members",
  size: "a partition has no size",
} as const;
export type KickstartRule = keyof typeof KICKSTART_RULES;

export interface KickstartFault {
  rule: KickstartRule;
  line: number;
}

/** Options of each command that is written here: with a value (=), without, or with either. */
const COMMANDS: Readonly<Record<string, readonly string[]>> = {
  graphical: [],
  text: [],
  keyboard: ["vckeymap=", "xlayouts="],
  lang: ["addsupport="],
  timezone: ["utc", "ntpservers=", "nontp"],
  network: [
    ...[
      "device=",
      "bootproto=",
      "ip=",
      "netmask=",
      "gateway=",
      "nameserver=",
      "hostname=",
      "onboot=",
      "mtu=",
    ],
    ...["ipv6=", "ipv6gateway=", "noipv4", "noipv6", "activate", "vlanid=", "interfacename="],
    ...["bondslaves=", "bondopts=", "bridgeslaves=", "bridgeopts="],
  ],
  rootpw: ["lock", "iscrypted", "plaintext"],
  sshkey: ["username="],
  user: [
    "name=",
    "groups=",
    "shell=",
    "lock",
    "gecos=",
    "uid=",
    "gid=",
    "homedir=",
    "iscrypted",
    "password=",
  ],
  firstboot: ["disable", "enable"],
  reboot: [],
  url: ["url=", "proxy="],
  services: ["enabled=", "disabled="],
  ignoredisk: ["only-use=", "drives="],
  clearpart: ["all", "none", "linux", "drives=", "initlabel", "disklabel="],
  bootloader: ["boot-drive=", "append=", "location="],
  part: ["fstype=", "ondisk=", "size=", "grow", "maxsize=", "asprimary", "label=", "fsoptions="],
  raid: ["device=", "level=", "fstype=", "spares=", "metadata="],
  volgroup: ["pesize="],
  logvol: ["vgname=", "name=", "fstype=", "size=", "grow", "maxsize=", "percent=", "thinpool", "poolname="],
};
const SECTIONS = ["%pre", "%post", "%packages", "%addon", "%onerror"];
const NEEDED = ["keyboard", "lang", "timezone", "network"];
const LETTERS = /^(?:\/dev\/)?(?:[svh]d[a-z]+\d*|nvme\d+n\d+(?:p\d+)?|mmcblk\d+|xvd[a-z]+)$/;

/** The words of a line as a POSIX shell splits them without expanding anything; null where a quotation does not end. */
export function kickstartWords(line: string): string[] | null {
  const words: string[] = [];
  let at = 0;
  while (at < line.length) {
    if (/\s/.test(line[at]!)) at += 1;
    else if (line[at] === "#") break;
    else {
      let text = "";
      while (at < line.length && !/\s/.test(line[at]!)) {
        const quote = line[at]!;
        if (quote !== '"' && quote !== "'") {
          if (quote === "\\") at += 1;
          text += line[at++] ?? "";
          continue;
        }
        for (at += 1; line[at] !== quote; at += 1) {
          if (at >= line.length) return null;
          if (quote === '"' && line[at] === "\\" && /["\\]/.test(line[at + 1] ?? "")) at += 1;
          text += line[at];
        }
        at += 1;
      }
      words.push(text);
    }
  }
  return words;
}

interface Seen {
  commands: { words: string[]; line: number }[];
  includes: { path: string; line: number }[];
  scripts: string[];
  faults: KickstartFault[];
}

/** One walk over the lines: commands of the file and of what a first script writes for it, sections, and what is wrong with them. */
function walk(text: string): Seen {
  const seen: Seen = { commands: [], includes: [], scripts: [], faults: [] };
  let section: { name: string; body: string[] } | null = null;
  let written = false;
  text.split("\n").forEach((raw, i) => {
    const line = i + 1;
    const fault = (rule: KickstartRule): void => void seen.faults.push({ rule, line });

    if (/[\x00-\x08\x0b-\x1f\x7f\u2028\u2029]/.test(raw)) fault("line");
    const head = raw.trimStart().split(/\s/, 1)[0] ?? "";
    if (section && head === "%end") {
      seen.scripts.push(section.body.join("\n"));
      section = null;
      return;
    }
    if (SECTIONS.includes(head)) {
      if (section) fault("section");
      if (head === "%pre" && !/\s--erroronfail\b/.test(raw)) fault("stops");
      section = { name: head, body: [] };
      return;
    }
    if (section) {
      section.body.push(raw);
      if (written && raw === "END_OF_STORAGE") written = false;
      else if (written) take(seen, raw, line);
      else if (/<< END_OF_STORAGE$/.test(raw)) written = true;
      return;
    }
    if (head.startsWith("%") && head !== "%include" && head !== "%ksappend") fault("section");
    else take(seen, raw, line);
  });
  if (section) seen.faults.push({ rule: "section", line: text.split("\n").length });
  if (text !== "" && !text.endsWith("\n")) seen.faults.push({ rule: "line", line: text.split("\n").length });
  return seen;
}

function take(seen: Seen, raw: string, line: number): void {
  const words = kickstartWords(raw);
  if (words === null) return void seen.faults.push({ rule: "quotes", line });
  const [command, ...rest] = words;
  if (command === undefined) return;
  if (command === "%include") return void seen.includes.push({ path: rest[0] ?? "", line });
  const options = own(COMMANDS, command);
  if (!options) return void seen.faults.push({ rule: "command", line });
  seen.commands.push({ words, line });
  for (const option of rest.filter((w) => w.startsWith("--"))) {
    const [, name = "", value] = /^--([^=]*)(?:=(.*))?$/s.exec(option) ?? [];
    const fits = value === undefined ? options.includes(name) : value !== "" && options.includes(`${name}=`);
    if (!fits) seen.faults.push({ rule: "option", line });
    if (value?.split(",").some((one) => LETTERS.test(one))) seen.faults.push({ rule: "letter", line });
  }
}

const valueOf = (words: readonly string[], option: string): string | undefined =>
  words.find((w) => w.startsWith(`--${option}=`))?.slice(option.length + 3);

/** What the parts say of each other. */
function layoutFaults({ commands }: Seen): KickstartFault[] {
  const made = commands.filter(({ words }) => words[0] === "part" || words[0] === "logvol");
  if (made.length === 0) return [];
  const groups = new Map(
    commands.flatMap(({ words }) => (words[0] === "volgroup" ? [[words[1], words.slice(2)] as const] : [])),
  );
  const arrays = commands.filter(({ words }) => words[0] === "raid");
  const stands = [...made, ...arrays];
  const volumes = new Set(
    stands.flatMap(({ words }) => (/^pv\.\d+$/.test(words[1] ?? "") ? [words[1]] : [])),
  );
  const mounts = stands.map(({ words }) => words[1] ?? "").filter((m) => m.startsWith("/"));
  const members = (words: readonly string[]): string[] => words.slice(2).filter((w) => !w.startsWith("--"));
  const isSound = (words: readonly string[]): boolean => {
    const own = members(words);
    const isPart = (name: string): boolean => made.some((m) => m.words[1] === name);
    const isAlone = (name: string): boolean =>
      arrays.filter((a) => members(a.words).includes(name)).length === 1;
    const active = own.length - Number(valueOf(words, "spares") ?? 0);
    return active >= 2 && own.every((name) => isPart(name) && isAlone(name));
  };
  return [
    ...made.flatMap(({ words, line }): KickstartFault[] => [
      ...(valueOf(words, "size") && Number(valueOf(words, "size")) > 0
        ? []
        : [{ rule: "size" as const, line }]),
      ...(words[0] === "logvol" && !groups.has(valueOf(words, "vgname"))
        ? [{ rule: "group" as const, line }]
        : []),
      ...(mounts.filter((m) => m === words[1]).length > 1 ? [{ rule: "mount" as const, line }] : []),
    ]),
    ...commands.flatMap(({ words, line }): KickstartFault[] =>
      words[0] === "volgroup" && words.slice(2).some((pv) => !pv.startsWith("--") && !volumes.has(pv))
        ? [{ rule: "group", line }]
        : [],
    ),
    ...arrays.flatMap(({ words, line }): KickstartFault[] => [
      ...(isSound(words) ? [] : [{ rule: "array" as const, line }]),
      ...(mounts.filter((m) => m === words[1]).length > 1 ? [{ rule: "mount" as const, line }] : []),
    ]),
    ...(mounts.includes("/") ? [] : [{ rule: "mount" as const, line: made[0]!.line }]),
  ];
}

/** What is wrong with a kickstart file, in the order of its lines. */
export function lintKickstart(text: string): KickstartFault[] {
  const seen = walk(text);
  const last = text.split("\n").length;
  const has = (command: string): boolean => seen.commands.some(({ words }) => words[0] === command);
  const isWritten = ({ path }: Seen["includes"][number]): boolean =>
    path.startsWith("/") && seen.scripts.some((script) => script.includes(`cat > ${path} <<`));
  return [
    ...seen.faults,
    ...NEEDED.filter((command) => !has(command)).map((): KickstartFault => ({ rule: "missing", line: last })),
    ...seen.includes
      .filter((one) => !isWritten(one))
      .map(({ line }): KickstartFault => ({ rule: "include", line })),
    ...layoutFaults(seen),
  ].sort((a, b) => a.line - b.line);
}
