import { keyboardNamed } from "../../identity";
import { commandProblem, componentProblem } from "../software";
import { kickstartWords } from "../write/lint-kickstart";
import { namesOf, roleOf, untaken, type AnswersRead, type SaidAccount } from "./draft";

const DRIVES = "drives are planned in zone D, by the rules of the OS family";
const WHY: Readonly<Record<string, string>> = {
  "%include": "another file, which is not available",
  "%ksappend": "another file, which is not available",
  part: DRIVES,
  partition: DRIVES,
  volgroup: DRIVES,
  logvol: DRIVES,
  raid: DRIVES,
  clearpart: DRIVES,
  bootloader: DRIVES,
  ignoredisk: "the target is chosen on the sheet, by its serial number",
};
/** What Derrick writes by itself, so that nothing is lost when it is not taken. */
const OWN = ["graphical", "text", "cmdline", "firstboot", "install", "reboot", "poweroff", "halt"];

/** Options of a command: `--name=value`, `--name value`, `--name`. */
function optionsOf(words: readonly string[]): { options: Map<string, string>; plain: string[] } {
  const options = new Map<string, string>();
  const plain: string[] = [];
  for (let i = 1; i < words.length; i += 1) {
    const [, name, value] = /^--([a-z0-9-]+)(?:=(.*))?$/is.exec(words[i]!) ?? [];
    if (name === undefined) plain.push(words[i]!);
    else if (value !== undefined || !VALUED.has(name) || words[i + 1]?.startsWith("--"))
      options.set(name, value ?? "");
    else options.set(name, words[(i += 1)] ?? "");
  }
  return { options, plain };
}

const VALUED = new Set([
  ...[
    "device",
    "bootproto",
    "ip",
    "netmask",
    "gateway",
    "nameserver",
    "hostname",
    "ipv6",
    "ipv6gateway",
    "mtu",
  ],
  ...[
    "name",
    "groups",
    "password",
    "shell",
    "username",
    "vckeymap",
    "xlayouts",
    "uid",
    "gid",
    "homedir",
    "gecos",
    ...["url", "proxy", "mirrorlist", "metalink", "enabled", "disabled"],
  ],
]);

type Options = Map<string, string>;

function takeNetwork(read: AnswersRead, options: Options, line: number): string | null {
  const hostname = options.get("hostname");
  if (hostname) {
    const { hostName, domain } = namesOf(hostname);
    read.hostName = { value: hostName, line };
    if (domain !== "") read.domain = { value: domain, line };
  }
  const complex = ["bondslaves", "bridgeslaves", "teamslaves", "vlanid"].find((o) => options.has(o));
  if (complex) return "bonds, bridges and VLANs are set up in zone E";
  const proto = options.get("bootproto") ?? (options.get("ip") ? "static" : "");
  const ipv6 = options.get("ipv6") ?? "";
  if (proto === "" && !ipv6.includes("/")) return hostname ? null : "no address";
  if (read.address) return "second address: see zone E";
  read.address = {
    value: {
      port: options.get("device") ?? null,
      dynamic: proto === "dhcp",
      address: options.get("ip") ?? ipv6.split("/")[0] ?? "",
      gateway: options.get("gateway") ?? options.get("ipv6gateway") ?? "",
      nameServers: (options.get("nameserver") ?? "").split(",").filter(Boolean),
    },
    line,
  };
  return null;
}

function takeUser(read: AnswersRead, options: Options, line: number): string | null {
  const name = options.get("name") ?? "";
  if (name === "") return "an account without a name";
  const hadHash = options.has("password");
  read.accounts.push({
    ...{ name, keys: [], hadHash, line },
    role: roleOf((options.get("groups") ?? "").split(","), options.get("shell") ?? ""),
    logIn: hadHash ? "password" : "none",
  });
  return hadHash && !options.has("iscrypted")
    ? "clear-text password: not imported; everyone who can read the file knows it"
    : null;
}

function takeKey(read: AnswersRead, options: Options, plain: string[]): string | null {
  const account = read.accounts.find(({ name }) => name === options.get("username"));
  if (!account) return "a key for an account that the file does not create";
  account.keys.push(plain.join(" "));
  if (account.logIn === "none") account.logIn = "key";
  return null;
}

/** One command; what of it is not taken, in words. */
function take(read: AnswersRead, words: string[], line: number): string | null {
  const { options, plain } = optionsOf(words);
  const [first = ""] = plain;
  switch (words[0]) {
    case "keyboard": {
      const name = (options.get("xlayouts") ?? options.get("vckeymap") ?? first).split(",")[0]!;
      read.keyboard = { value: keyboardNamed(name), line };
      return null;
    }
    case "lang":
      read.locale = { value: first, line };
      return null;
    case "timezone":
      read.timeZone = { value: first, line };
      return null;
    case "network":
      return takeNetwork(read, options, line);
    case "rootpw": {
      const locked = options.has("lock");
      const hadHash = !locked && first !== "";
      read.accounts.unshift({
        ...{ name: "root", role: "super-user", keys: [], hadHash, line },
        logIn: locked ? "none" : "password",
      });
      return hadHash && !options.has("iscrypted")
        ? "clear-text password: not imported; everyone who can read the file knows it"
        : null;
    }
    case "user":
      return takeUser(read, options, line);
    case "url":
      if (!options.get("url")) return "a mirror list: the sheet supports one source";
      read.source = { value: options.get("url") ?? "", line };
      if (options.get("proxy")) read.proxy = { value: options.get("proxy") ?? "", line };
      return null;
    case "services":
      if (!options.has("enabled")) return "no field for disabled services";
      read.services = { value: (options.get("enabled") ?? "").split(",").filter(Boolean), line };
      return options.has("disabled") ? "no field for disabled services" : null;
    case "sshkey":
      return takeKey(read, options, plain);
    default:
      return WHY[words[0] ?? ""] ?? "no matching field";
  }
}

/** What a first script of Derrick's looks for. */
function takeTarget(read: AnswersRead, text: string, line: number): void {
  const [, serial] = /\bd1=\$\(name_of '?([^' ]+)'? \d+ /.exec(text) ?? [];
  if (serial) read.serial = { value: serial, line };
  if (/\bd[2-9]\d*=\$\(name_of /.test(text))
    read.untaken.push(untaken(line, "the next drive of the target", "several drives are chosen in zone D"));
  const [, boot] = /^(?:part|raid) (\/boot\/efi|biosboot) /.exec(text) ?? [];
  if (boot) read.mode = { value: boot === "biosboot" ? "legacy" : "uefi", line };
}

/** One line of the packages; what is left out of a group has no field. */
function takePackage(read: AnswersRead, text: string, section: number, line: number): void {
  if (text === "" || text.startsWith("#")) return;
  if (componentProblem(text) === null) read.components?.value.push(text);
  else
    read.untaken.push(untaken(line, text, `a package line (from line ${section}) without a matching field`));
}

/** A line of the last script that gives one command to a shell, as Derrick writes them; false for any other. */
function takeFinish(read: AnswersRead, text: string, section: { line: number }): boolean {
  const words = kickstartWords(text);
  const command = words?.[0] === "sh" && words[1] === "-c" && words.length === 3 ? words[2]! : null;
  if (command === null || commandProblem(command) !== null) return false;
  (read.finish ??= { value: [], line: section.line }).value.push(command);
  return true;
}

/** Reads a kickstart file: its commands; sections are left out, but for what Derrick's own first script tells. */
export function readKickstart(lines: readonly string[]): AnswersRead {
  const read: AnswersRead = { format: "kickstart", accounts: [], untaken: [] };
  let section: { name: string; line: number; isOwn: boolean; taken: number; left: number } | null = null;
  lines.forEach((text, i) => {
    const line = i + 1;
    const head = text.trim().split(/\s/, 1)[0] ?? "";
    if (section) {
      if (section.name.startsWith("%packages")) {
        if (head !== "%end") takePackage(read, text.trim(), section.line, line);
        else section = null;
        return;
      }
      takeTarget(read, text.trim(), line);
      section.isOwn ||= text.startsWith("d1=$(name_of ");
      if (section.name.startsWith("%post") && (text === "set -e" || takeFinish(read, text, section))) {
        section.taken += 1;
        return;
      }
      if (head !== "%end") {
        section.left += head === "" || head.startsWith("#") ? 0 : 1;
        return;
      }
      if (!section.isOwn && (section.taken === 0 || section.left > 0))
        read.untaken.push(
          untaken(
            section.line,
            section.name,
            section.taken === 0
              ? "a section, not imported"
              : `a section, of which ${section.left} lines are not imported`,
          ),
        );
      section = null;
      return;
    }
    if (head === "%packages") read.components = { value: [], line };
    if (/^%(pre|post|packages|addon|onerror|traceback|pre-install)$/.test(head)) {
      section = { name: text.trim(), line, isOwn: false, taken: 0, left: 0 };
      return;
    }
    const words = kickstartWords(text);
    if (words === null) return void read.untaken.push(untaken(line, text, "a quotation is not closed"));
    if (words.length === 0 || OWN.includes(words[0]!)) return;
    if (words[0] === "%include" && words[1]?.startsWith("/tmp/derrick-")) return;
    const why = take(read, words, line);
    if (why !== null) read.untaken.push(untaken(line, text, why));
  });
  const open = section as { name: string; line: number } | null;
  if (open)
    read.untaken.push(untaken(open.line, open.name, "the section is not closed: the file is truncated"));
  return withRoot(read);
}

/** Where nothing is said of the super-user, the installer asks for its password. */
function withRoot(read: AnswersRead): AnswersRead {
  if (read.accounts.some(({ role }) => role === "super-user")) return read;
  const root: SaidAccount = {
    ...{ name: "root", role: "super-user", logIn: "password", keys: [], hadHash: false, line: 0 },
  };
  return { ...read, accounts: [root, ...read.accounts] };
}
