import { keyboardNamed } from "../../identity";
import { kickstartWords } from "../write/lint-kickstart";
import { accountsFromCommands, partedCommands } from "./commands";
import { namesOf, untaken, type AnswersRead, type SaidAccount } from "./draft";

interface Answer {
  question: string;
  value: string;
  line: number;
  text: string;
}

/** The answers of a file: `owner question type value`; a line that ends in a backslash goes on in the next one. */
function answersOf(lines: readonly string[], read: AnswersRead): Answer[] {
  const answers: Answer[] = [];
  for (let i = 0; i < lines.length; i += 1) {
    const line = i + 1;
    let text = lines[i]!;
    while (text.endsWith("\\") && i + 1 < lines.length) text = text.slice(0, -1) + lines[(i += 1)]!;
    if (/^\s*(#|$)/.test(text)) continue;
    const [, question, value] = /^\s*\S+\s+(\S+)\s+(?:\S+)(?: (.*)|\s*)$/.exec(text) ?? [];
    if (question === undefined)
      read.untaken.push(untaken(line, text, "not a question with its type and its answer"));
    else answers.push({ question, value: value ?? "", line, text });
  }
  return answers;
}

const DRIVES = "drives are planned in zone D, by the rules of the OS family";
/** Questions whose answers follow from what is taken, so that nothing is lost. */
const FOLLOWS = [
  ...["netcfg/disable_autoconfig", "netcfg/confirm_static", "netcfg/get_netmask", "clock-setup/utc"],
  ...["netcfg/no_default_route", "passwd/user-fullname", "passwd/make-user", "partman-auto/expert_recipe"],
  ...["netcfg/hostname", "finish-install/reboot_in_progress"],
];

/** The super-user and the one account beside it. */
function peopleOf(said: ReadonlyMap<string, Answer>): SaidAccount[] {
  const root = said.get("passwd/root-login");
  const first = said.get("passwd/username");
  const has = (question: string): boolean =>
    said.has(`passwd/${question}-crypted`) || said.has(`passwd/${question}`);
  const person = (name: string, role: SaidAccount["role"], line: number, on: boolean, hadHash: boolean) => ({
    ...{ name, role, line, keys: [], hadHash },
    logIn: on ? ("password" as const) : ("none" as const),
  });
  return [
    ...(root ? [person("root", "super-user", root.line, root.value === "true", has("root-password"))] : []),
    ...(first ? [person(first.value, "administrator", first.line, true, has("user-password"))] : []),
  ];
}

function takeLate(read: AnswersRead, { value, line, question }: Answer): void {
  const words = kickstartWords(value) ?? [];
  const script = words[0] === "in-target" && words[1] === "sh" && words[2] === "-c" ? words[3] : undefined;
  const { accounts, services, finish, rest } = accountsFromCommands(
    partedCommands(script ?? value),
    read.accounts,
    line,
  );
  read.accounts = accounts;
  if (services.length > 0) read.services = { value: services, line };
  if (finish.length > 0) read.finish = { value: finish, line };
  // What such commands say is not shown: many hold a password.
  if (rest.length > 0) read.untaken.push(untaken(line, question, "commands at the end of the installation"));
}

/** Reads a preseed file. */
export function readPreseed(lines: readonly string[]): AnswersRead {
  const read: AnswersRead = { format: "preseed", accounts: [], untaken: [] };
  const answers = answersOf(lines, read);
  const said = new Map(answers.map((a) => [a.question, a]));
  const of = (question: string) => said.get(question)?.value ?? "";
  read.accounts = peopleOf(said);
  const address = said.get("netcfg/get_ipaddress");
  const port = said.get("netcfg/choose_interface");
  if (address ?? port)
    read.address = {
      value: {
        port: port && port.value !== "auto" ? port.value : null,
        dynamic: !address,
        address: of("netcfg/get_ipaddress").split("/")[0] ?? "",
        gateway: of("netcfg/get_gateway"),
        nameServers: of("netcfg/get_nameservers")
          .split(/[\s,]+/)
          .filter(Boolean),
      },
      line: (address ?? port)!.line,
    };
  takeSoftware(read, said);
  for (const answer of answers) {
    const why = take(read, answer);
    if (why !== null) read.untaken.push(untaken(answer.line, answer.text, why));
  }
  return read;
}

/** The mirror, put together from its parts; tasks and packages. */
function takeSoftware(read: AnswersRead, said: ReadonlyMap<string, Answer>): void {
  const kind = said.get("mirror/protocol")?.value === "https" ? "https" : "http";
  const [host, directory, proxy] = ["hostname", "directory", "proxy"].map((part) =>
    said.get(`mirror/${kind}/${part}`),
  );
  if (host && host.value !== "")
    read.source = { value: `${kind}://${host.value}${directory?.value ?? "/"}`, line: host.line };
  if (proxy && proxy.value !== "") read.proxy = { value: proxy.value, line: proxy.line };
  const [tasks, packages] = [said.get("tasksel/first"), said.get("pkgsel/include")];
  const at = tasks ?? packages;
  if (at)
    read.components = {
      value: [
        ...(tasks?.value ?? "")
          .split(/\s*,\s*/)
          .filter(Boolean)
          .map((task) => `@${task}`),
        ...(packages?.value ?? "").split(/[\s,]+/).filter(Boolean),
      ],
      line: at.line,
    };
}

/** One answer; why it is not taken, or null. */
function take(read: AnswersRead, answer: Answer): string | null {
  const { question, value, line } = answer;
  const said = { value, line };
  if (/^netcfg\/(get_ipaddress|get_gateway|get_nameservers|choose_interface)$/.test(question)) return null;
  if (question === "mirror/protocol" && value !== "http" && value !== "https")
    return "package source must use http or https";
  if (question === "mirror/country" && value !== "manual") return "a mirror is set by its address";
  if (
    /^(mirror\/(country|protocol|https?\/(hostname|directory|proxy))|tasksel\/first|pkgsel\/include)$/.test(
      question,
    )
  )
    return null;
  if (/^passwd\/(root-login|username|(root|user)-password-crypted)$/.test(question)) return null;
  if (/^passwd\/(root|user)-password/.test(question))
    return "clear-text password: not imported; everyone who can read the file knows it";
  switch (question) {
    case "debian-installer/locale":
      read.locale = said;
      return null;
    case "keyboard-configuration/xkb-keymap":
      read.keyboard = { value: keyboardNamed(value), line };
      return null;
    case "netcfg/get_hostname": {
      const { hostName, domain } = namesOf(value);
      read.hostName = { value: hostName, line };
      if (domain !== "") read.domain = { value: domain, line };
      return null;
    }
    case "netcfg/get_domain":
      if (value !== "") read.domain = said;
      return null;
    case "time/zone":
      read.timeZone = said;
      return null;
    case "preseed/late_command":
      takeLate(read, answer);
      return null;
    case "partman/early_command": {
      const [, quoted, plain] = /\[ "\$s" = (?:'([^']*)'|(\S+)) \]/.exec(value) ?? [];
      const serial = quoted ?? plain;
      if (serial === undefined) return DRIVES;
      read.serial = { value: serial, line };
      return null;
    }
    default:
      if (question === "partman-auto/expert_recipe" && value.startsWith("derrick :: "))
        read.mode = { value: value.includes("method{ efi }") ? "uefi" : "legacy", line };
      else if (/^(partman|grub)/.test(question)) return DRIVES;
      return FOLLOWS.includes(question) ? null : "no matching field";
  }
}
