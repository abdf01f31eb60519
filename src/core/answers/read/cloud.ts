import { LineCounter, parseDocument, type Document } from "yaml";
import { keyboardNamed } from "../../identity";
import { commandProblem } from "../software";
import { kickstartWords } from "../write/lint-kickstart";
import { namesOf, roleOf, untaken, type AnswersRead, type SaidAccount } from "./draft";

type Tree = Record<string, unknown>;
const isTree = (value: unknown): value is Tree =>
  typeof value === "object" && value !== null && !Array.isArray(value);
const text = (value: unknown): string =>
  typeof value === "string" || typeof value === "number" ? String(value) : "";
const list = (value: unknown): unknown[] => (Array.isArray(value) ? value : []);
const texts = (value: unknown): string[] =>
  (typeof value === "string" ? value.split(",") : list(value).map(text)).map((t) => t.trim()).filter(Boolean);

/** A tree with the lines of its parts. */
interface Place {
  read: AnswersRead;
  doc: Document;
  lines: LineCounter;
  /** Where the tree stands in the document. */
  at: readonly string[];
}

function lineOf({ doc, lines, at }: Place, ...keys: (string | number)[]): number {
  const node: unknown = doc.getIn([...at, ...keys], true);
  const range = isTree(node) ? (node as { range?: [number, number, number] }).range : undefined;
  return range ? lines.linePos(range[0]).line : 1;
}

/** One account of the module "users"; null where the entry is none of Derrick's kind. */
function userOf(entry: unknown, line: number): SaidAccount | null {
  if (!isTree(entry) || text(entry.name) === "") return null;
  const hadHash = ["passwd", "hashed_passwd"].some((key) => text(entry[key]) !== "");
  const keys = texts(list(entry.ssh_authorized_keys));
  const name = text(entry.name);
  return {
    ...{ name, keys, hadHash, line },
    role:
      name === "root"
        ? "super-user"
        : entry.system === true
          ? "service"
          : roleOf(texts(entry.groups), text(entry.shell)),
    logIn: hadHash ? "password" : keys.length > 0 ? "key" : "none",
  };
}

function takeUsers(place: Place, users: unknown, ...keys: string[]): void {
  list(users).forEach((entry, i) => {
    const line = lineOf(place, ...keys, i);
    const account = userOf(entry, line);
    if (account) place.read.accounts.push(account);
    else
      place.read.untaken.push(
        untaken(line, JSON.stringify(entry) ?? "", "no account with a name of its own"),
      );
    if (isTree(entry) && text(entry.plain_text_passwd) !== "")
      place.read.untaken.push(
        untaken(
          line,
          text(entry.name),
          "clear-text password: not imported; everyone who can read the file knows it",
        ),
      );
  });
}

function takeNames(place: Place, tree: Tree, ...keys: string[]): void {
  const { read } = place;
  const full = text(tree.fqdn) || text(tree.hostname);
  if (full === "") return;
  const { hostName, domain } = namesOf(full);
  read.hostName = { value: hostName, line: lineOf(place, ...keys, tree.fqdn ? "fqdn" : "hostname") };
  if (domain !== "") read.domain = { value: domain, line: lineOf(place, ...keys, "fqdn") };
}

/** The one plain port of a network in version 2 of its format. */
function takeNetwork(place: Place, network: unknown): void {
  const { read } = place;
  const line = lineOf(place, "network");
  // Some wrap it once more in a key of the same name.
  const tree = isTree(network) && isTree(network.network) ? network.network : network;
  if (!isTree(tree)) return;
  const other = ["bonds", "bridges", "vlans", "wifis"].filter((kind) => isTree(tree[kind]));
  const ports = Object.entries(isTree(tree.ethernets) ? tree.ethernets : {});
  const [first] = ports.filter(
    ([, port]) => isTree(port) && (port.dhcp4 === true || list(port.addresses).length > 0),
  );
  if (other.length > 0) read.untaken.push(untaken(line, other.join(", "), "set up in zone E"));
  if (!first || !isTree(first[1])) return;
  const [name, port] = first;
  const route = list(port.routes).find(
    (r) => isTree(r) && ["default", "0.0.0.0/0", "::/0"].includes(text(r.to)),
  );
  read.address = {
    value: {
      port: isTree(port.match) && text(port.match.macaddress) ? text(port.match.macaddress) : name,
      dynamic: port.dhcp4 === true,
      address: text(list(port.addresses)[0]).split("/")[0] ?? "",
      gateway: isTree(route) ? text(route.via) : text(port.gateway4) || text(port.gateway6),
      nameServers: isTree(port.nameservers) ? texts(port.nameservers.addresses) : [],
    },
    line,
  };
  if (ports.length > 1) read.untaken.push(untaken(line, "ethernets", "second port: see zone E"));
}

function takeStorage(place: Place, storage: unknown): void {
  const { read } = place;
  const config = isTree(storage) ? list(storage.config) : [];
  const disk = config.findIndex(
    (c) => isTree(c) && c.type === "disk" && isTree(c.match) && text(c.match.serial) !== "",
  );
  const one = config[disk];
  if (isTree(one) && isTree(one.match))
    read.serial = {
      value: text(one.match.serial).replace(/[*\s]/g, ""),
      line: lineOf(place, "storage", "config", disk, "match", "serial"),
    };
  const flags = config.flatMap((c) => (isTree(c) && c.type === "partition" ? [text(c.flag)] : []));
  if (flags.some((flag) => flag === "boot" || flag === "bios_grub"))
    read.mode = {
      value: flags.includes("bios_grub") ? "legacy" : "uefi",
      line: lineOf(place, "storage"),
    };
  if (!read.serial)
    read.untaken.push(
      untaken(lineOf(place, "storage"), "storage", "drives are planned in zone D, by serial number"),
    );
}

function takePackages({ read, ...place }: Place, value: unknown): boolean {
  const line = lineOf({ read, ...place }, "packages");
  if (!list(value).every((p) => typeof p === "string")) return false;
  read.components = { value: texts(value), line };
  return true;
}

/** The one primary mirror of all architectures. */
function takeApt(place: Place, value: unknown): boolean {
  const [first, ...others] = isTree(value) ? list(value.primary) : [];
  const isPlain = isTree(first) && typeof first.uri === "string" && others.length === 0;
  if (!isPlain || !isTree(value) || Object.keys(value).length > 1) return false;
  place.read.source = { value: text(first.uri), line: lineOf(place, "apt", "primary", 0, "uri") };
  return true;
}

const IN_TARGET = "curtin in-target --target=/target -- ";

/** What one command enables, or gives to a shell; null for any other. */
function commandOf(command: unknown): { service: string } | { finish: string } | null {
  const words = Array.isArray(command)
    ? list(command).map(text)
    : (kickstartWords(text(command).replace(IN_TARGET, "")) ?? []);
  if (words[0] === "sh" && words[1] === "-c" && words.length === 3)
    return commandProblem(words[2]!) === null ? { finish: words[2]! } : null;
  const service = /^systemctl enable (?:--now )?([A-Za-z0-9][\w@.-]*)$/.exec(words.join(" "))?.[1];
  return service ? { service } : null;
}

/** Commands that enable services or are given to a shell, and do nothing else. */
function takeCommands(place: Place, key: string, value: unknown): boolean {
  const commands = list(value).map(commandOf);
  if (commands.length === 0 || commands.some((c) => c === null)) return false;
  const line = lineOf(place, key);
  const services = commands.flatMap((c) => (c && "service" in c ? [c.service] : []));
  const finish = commands.flatMap((c) => (c && "finish" in c ? [c.finish] : []));
  if (services.length > 0) place.read.services = { value: services, line };
  if (finish.length > 0) place.read.finish = { value: finish, line };
  return true;
}

/** Keys that say nothing of their own. */
const FOLLOWS = [
  "version",
  "interactive-sections",
  "early-commands",
  "prefer_fqdn_over_hostname",
  "ssh",
  "manage_etc_hosts",
  "disable_root",
  "ssh_pwauth",
];

function takeKey(place: Place, key: string, value: unknown): boolean {
  const { read } = place;
  const line = lineOf(place, key);
  const simple = { locale: "locale", timezone: "timeZone" } as const;
  if (key === "locale" || key === "timezone") read[simple[key]] = { value: text(value), line };
  else if (key === "keyboard" && isTree(value)) {
    const [layout, variant] = [text(value.layout), text(value.variant)];
    read.keyboard = { value: keyboardNamed(variant === "" ? layout : `${layout}(${variant})`), line };
  } else if (key === "network") takeNetwork(place, value);
  else if (key === "storage") takeStorage(place, value);
  else if (key === "users") takeUsers(place, value, "users");
  else if (key === "proxy") read.proxy = { value: text(value), line };
  else if (key === "packages") return takePackages(place, value);
  else if (key === "apt") return takeApt(place, value);
  else if (key === "late-commands" || key === "runcmd") return takeCommands(place, key, value);
  else if (key === "hostname" || key === "fqdn") return true;
  else if (key === "identity" && isTree(value)) {
    takeNames(place, value, "identity");
    const hadHash = text(value.password) !== "";
    read.accounts.push({
      ...{ name: text(value.username), role: "administrator", logIn: "password" },
      ...{ keys: [], hadHash, line },
    });
  } else if (key === "user-data" && isTree(value)) {
    takeNames(place, value, "user-data");
    takeUsers(place, value.users, "user-data", "users");
  } else return FOLLOWS.includes(key);
  return true;
}

/** Reads cloud-config: the user data of an installer, or of an installed image. */
export function readCloudConfig(whole: string): AnswersRead {
  const lines = new LineCounter();
  const doc = parseDocument(whole, { lineCounter: lines });
  const read: AnswersRead = { format: "cloud-config", accounts: [], untaken: [] };
  for (const error of doc.errors)
    read.untaken.push(
      untaken(error.linePos?.[0].line ?? 1, error.message.split("\n")[0] ?? "", "invalid YAML"),
    );
  if (doc.errors.length > 0) return read;
  let top: unknown;
  try {
    top = doc.toJS({ maxAliasCount: 20 });
  } catch {
    read.untaken.push(untaken(1, "", "circular references"));
    return read;
  }
  if (!isTree(top)) {
    read.untaken.push(untaken(1, whole.split("\n")[0] ?? "", "no keys with values"));
    return read;
  }
  const isInstaller = isTree(top.autoinstall);
  if (isInstaller) read.format = "autoinstall";
  const body = isTree(top.autoinstall) ? top.autoinstall : top;
  const place: Place = { read, doc, lines, at: isInstaller ? ["autoinstall"] : [] };
  takeNames(place, body);
  for (const [key, value] of Object.entries(body))
    if (!takeKey(place, key, value)) read.untaken.push(untaken(lineOf(place, key), key, "no matching field"));
  return read;
}
