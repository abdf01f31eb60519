import { xkbNames } from "../../identity";
import type { Profile } from "../../image";
import { netmaskOf, shellWord, writeIfupdown, type LinkPlan } from "../../network";
import { componentsOf } from "../software";
import type { Gap, InstallIntent, IntentPart, IntentPath } from "../intent";
import { accountCommands, accountNotes, keyCommands } from "./accounts";
import { linesFrom, type AnswerFile, type AnswerLine } from "./line";

const MEGABYTE = 1e6;

type Kind = "string" | "boolean" | "select" | "note" | "password";

/** One question of the installer with its answer; what follows the one space behind the type is the answer, to the end of the line. */
const answer = (from: IntentPath | null, question: string, kind: Kind, value: string): AnswerLine[] =>
  linesFrom(from, `d-i ${question} ${kind}${value === "" && kind === "note" ? "" : ` ${value}`}`);

const MOST_PRIMARY = 4;

/**
 * What makes a part of a DOS table a primary one, where it would become a logical one otherwise (seen), and the part active
 * that holds the loader's own files: boot code starts no other.
 */
function dosWords({ table, parts }: InstallIntent["target"], mount: string | undefined): string {
  if (table !== "dos") return "";
  const holdsLoader = parts.some((p) => p.name.toLowerCase() === "boot") ? "/boot" : "/";
  const isActive = mount === holdsLoader;
  const isPrimary = isActive || parts.length <= MOST_PRIMARY;
  return `${isPrimary ? "$primary{ } " : ""}${isActive ? "$bootable{ } " : ""}`;
}

/**
 * A partition in the recipe of the installer: least, priority and most in megabytes of 10^6 bytes (-1: all that is left),
 * its file system, and its settings up to the full stop. Null for what the recipe has no words for.
 */
function recipeOf(part: IntentPart, target: InstallIntent["target"]): string | null {
  // The installer cuts what it is told to whole MiB: 1023 of these megabytes for 976 MiB became 975 (seen).
  const megabytes = Math.ceil(part.bytes / MEGABYTE);
  const size = part.takesRest ? "1000 1000000 -1" : `${megabytes} ${megabytes} ${megabytes}`;
  if (part.use === "efi") return `${size} free $iflabel{ gpt } method{ efi } format{ } .`;
  if (part.use === "bios boot") return `${size} free $iflabel{ gpt } method{ biosgrub } .`;
  if (part.fs === "swap")
    return `${size} linux-swap ${dosWords(target, undefined)}method{ swap } format{ } .`;
  const mount = { root: "/", boot: "/boot", home: "/home", var: "/var" }[part.name.toLowerCase()];
  if (part.use !== "linux" || mount === undefined || (part.fs !== "ext4" && part.fs !== "xfs")) return null;
  const { fs } = part;
  return `${size} ${fs} ${dosWords(target, mount)}method{ format } format{ } use_filesystem{ } filesystem{ ${fs} } mountpoint{ ${mount} } .`;
}

/**
 * What lets the installer write without asking: it is only set once the planned drive was found. The installer passes over a
 * critical question only when its answer is marked as seen, which a list of answers does and a single value does not (seen).
 */
const GOES_ON: readonly [question: string, kind: Kind, value: string][] = [
  ["partman-auto/method", "string", "regular"],
  ["partman-auto/choose_recipe", "select", "derrick"],
  ["partman-partitioning/confirm_write_new_label", "boolean", "true"],
  ["partman/choose_partition", "select", "finish"],
  ["partman/confirm", "boolean", "true"],
  ["partman/confirm_nooverwrite", "boolean", "true"],
];

/**
 * Asked of a drive that holds a volume group or an array, with "no" as the usual answer. Only where its erasing was agreed to;
 * a group that reaches other drives as well is another question, and never answered here.
 */
const TAKES_APART: typeof GOES_ON = [
  ["partman-lvm/device_remove_lvm", "boolean", "true"],
  ["partman-md/device_remove_md", "boolean", "true"],
];

/** Where the answers lie until they are loaded; nobody but root is there. */
const ANSWERS = "/tmp/derrick.answers";

/**
 * The one line of shell that runs before the installer looks at any drive, with what its small system has: udev and sysfs.
 * Unless exactly one drive has the serial, and that one the size, it ends, and the installer asks on its screen as if there
 * were no file: by itself it would take a machine's only drive, whichever that is.
 */
function firstCommand({ target }: InstallIntent): string {
  const [{ drive, mayErase }] = target.drives;
  const serial = (drive.serial ?? "").replace(/\s+/g, "");
  const stop = (words: string): string => `{ echo "derrick: ${words}" >&2; exit 1; }`;
  const set = ["partman-auto/disk", "grub-installer/bootdev"].map(
    (question) => `"d-i ${question} string /dev/$found"`,
  );
  const seen = [...GOES_ON, ...(mayErase ? TAKES_APART : [])].map((words) =>
    shellWord(`d-i ${words.join(" ")}`),
  );
  return [
    "found=",
    `for d in "\${SYS:-/sys}"/block/*; do n=\${d##*/}`,
    `p=$(udevadm info --query=property --name="/dev/$n" 2>/dev/null)`,
    // The serial of a drive with a world wide name, of one without, and of a virtual one: the order in which lsblk shows them.
    "s=",
    'for k in ID_SCSI_SERIAL ID_SERIAL_SHORT ID_SERIAL; do [ -n "$s" ] || s=$(echo "$p" | sed -n "s/^$k=//p" | tr -d "[:space:]")',
    "done",
    `[ "$s" = ${shellWord(serial)} ] || continue`,
    `[ -z "$found" ] || ${stop("two drives have the planned serial number")}`,
    "found=$n",
    "done",
    `[ -n "$found" ] || ${stop("no drive has the planned serial number")}`,
    `[ $(( $(cat "\${SYS:-/sys}/block/$found/size") * 512 )) -eq ${drive.sizeBytes} ] || ${stop("the planned drive has another size")}`,
    `if grep -q "^/dev/$found" "\${MOUNTS:-/proc/mounts}"; then ${stop("the planned drive is in use")}; fi`,
    ...(mayErase
      ? []
      : [
          `[ -z "$(blkid "/dev/$found"* 2>/dev/null)" ] || ${stop("the planned drive has contents that the sheet does not know")}`,
        ]),
    `if ! { printf "%s\\012" ${[...set, ...seen].join(" ")} > ${ANSWERS} && debconf-set-selections ${ANSWERS}; }; then ${stop("the answers could not be loaded")}; fi`,
    `rm -f ${ANSWERS}`,
  ].join("; ");
}

/** Where packages of the family are needed for what stands on a port. */
const NEEDED_BY: Readonly<Partial<Record<LinkPlan["kind"], string>>> = {
  ...{ bond: "ifenslave", vlan: "vlan", bridge: "bridge-utils" },
};

/** What this installer is told of the network, and what is written for it beside its own answers. */
interface PreseedNetwork {
  lines: AnswerLine[];
  byHand: Gap[];
  /** Run before it looks at drives: the file of interfaces, which it copies to the new system. */
  before: string[];
  /** Run in the new system at the end. */
  after: string[];
  packages: string[];
}

/**
 * Words in single quotes as the installer's store of answers gives them back: of a backslash and an n it makes the end of a line
 * when it is read again (seen with Debian 13), so that the two stand in quotes of their own.
 */
const storable = (quoted: string): string => quoted.replaceAll("\\n", "\\''n");

const written = (path: string, text: string): string =>
  `mkdir -p ${path.slice(0, path.lastIndexOf("/"))} && printf "%s\\012" ${text
    .trimEnd()
    .split("\n")
    .map((line) => storable(shellWord(line)))
    .join(" ")} > ${path}`;

/**
 * This installer sets up one port, plainly. Where the plan has more, and the family reads the file of interfaces, that is put
 * in the place of the installer's own, which it copies to the new system; ports get their planned names there by their MACs.
 */
function networkOf({ network }: InstallIntent, readsFile: boolean): PreseedNetwork {
  const first = network.links.find((l) => l.address !== null && l.kind === "port");
  const beside = network.links.filter((l) =>
    l === first ? l.mtu !== null : l.kind !== "port" || l.address !== null,
  );
  const lines = first ? portLines(first) : [];
  if (beside.length === 0) return { lines, byHand: [], before: [], after: [], packages: [] };
  if (!readsFile)
    return {
      ...{ lines, before: [], after: [], packages: [] },
      byHand: beside.map((l): Gap => ({
        path: "network.interfaces",
        message:
          l === first
            ? `the MTU ${l.mtu} of ${l.name} is set at the first boot, from the files of zone E`
            : `the ${l.kind} ${l.name} is created at the first boot, from the files of zone E: this installer sets up one plain port`,
      })),
    };
  const { files, problems } = writeIfupdown(network);
  const servers = network.links.flatMap((l) => (l.address?.how === "fixed" ? l.address.nameServers : []));
  const [own, others] = [files.filter(isInterfaces), files.filter((f) => !isInterfaces(f))];
  const search = network.domain ? [`search ${network.domain}`] : [];
  const resolver = [...search, ...servers.map((server) => `nameserver ${server}`)].join("\n");
  return {
    lines,
    byHand: problems.map(({ message }) => ({ path: "network.interfaces", message })),
    before: own.map(({ path, text }) => written(path, text)),
    after: [
      ...others.map(({ path, text }) => written(path, text)),
      ...(servers.length > 0 ? [written("/etc/resolv.conf", resolver)] : []),
    ],
    packages: [...new Set(network.links.flatMap(({ kind }) => NEEDED_BY[kind] ?? []))],
  };
}

const isInterfaces = ({ path }: { path: string }): boolean => path === "/etc/network/interfaces";

function portLines({ name, address }: LinkPlan): AnswerLine[] {
  const of = (question: string, kind: Kind, value: string) =>
    answer("network.address", `netcfg/${question}`, kind, value);
  const chosen = answer("network.port", "netcfg/choose_interface", "select", name);
  if (!address || address.how === "dhcp") return chosen;
  return [
    ...chosen,
    ...of("disable_autoconfig", "boolean", "true"),
    ...of(
      "get_ipaddress",
      "string",
      address.address.includes(":") ? `${address.address}/${address.length}` : address.address,
    ),
    ...(address.address.includes(":") ? [] : of("get_netmask", "string", netmaskOf(address.length))),
    ...(address.gateway
      ? of("get_gateway", "string", address.gateway)
      : of("no_default_route", "boolean", "true")),
    ...(address.nameServers.length > 0 ? of("get_nameservers", "string", address.nameServers.join(" ")) : []),
    ...of("confirm_static", "boolean", "true"),
  ];
}

/**
 * Accounts as this installer asks for them: a super-user or none, and one account beside it. The others, and all keys, are
 * made by a command at its end, inside the new system.
 */
function accountLines(
  { accounts, system, software }: InstallIntent,
  network: readonly string[],
): { lines: AnswerLine[]; byHand: Gap[] } {
  const of = (question: string, kind: Kind, value: string) =>
    answer("answers.accounts", `passwd/${question}`, kind, value);
  const root = accounts.find((a) => a.role === "super-user" && a.logIn === "password");
  const first = accounts.find((a) => a.role === "administrator" && a.logIn === "password");
  const made = accounts.flatMap((a) => {
    if (a === first || a.role === "super-user") return keyCommands(a);
    return a.logIn === "password" && !a.hash ? [] : accountCommands(a, system.adminGroup);
  });
  const isOfAccounts = made.length > 0;
  made.push(
    ...network,
    ...software.services.map((s) => `systemctl enable ${shellWord(s)}`),
    ...software.finish.map((command) => `sh -c ${shellWord(command)}`),
  );
  const lateOf = isOfAccounts
    ? "answers.accounts"
    : network.length > 0
      ? "network.interfaces"
      : software.services.length > 0
        ? "answers.services"
        : "answers.finish";
  // A command that fails ends it, and the installer says so, as in the files of other families.
  const late =
    made.length > 0 ? `in-target sh -c ${storable(shellWord(["set -e", ...made].join("; ")))}` : null;
  return {
    lines: [
      ...of("root-login", "boolean", String(root !== undefined)),
      ...(root?.hash ? of("root-password-crypted", "password", root.hash) : []),
      ...of("make-user", "boolean", String(first !== undefined)),
      ...(first
        ? [...of("user-fullname", "string", first.name), ...of("username", "string", first.name)]
        : []),
      ...(first?.hash ? of("user-password-crypted", "password", first.hash) : []),
      ...(late ? answer(lateOf, "preseed/late_command", "string", late) : []),
    ],
    byHand: accounts.flatMap((a) =>
      accountNotes(a, a === root || a === first ? "on the screen of the installer" : "at the first boot"),
    ),
  };
}

/** The mirror in its parts, as this installer asks for them, and which packages; tasks are its groups. */
function softwareLines(
  { source, proxy, components }: InstallIntent["software"],
  needed: readonly string[],
): AnswerLine[] {
  const { groups, packages: chosen } = componentsOf(components);
  const packages = [...chosen, ...needed.filter((one) => !chosen.includes(one))];
  const url = source === "" ? null : new URL(source);
  const kind = url?.protocol === "https:" ? "https" : "http";
  return [
    ...(url
      ? [
          ...answer("answers.source", "mirror/country", "string", "manual"),
          ...answer("answers.source", "mirror/protocol", "select", kind),
          ...answer("answers.source", `mirror/${kind}/hostname`, "string", url.host),
          ...answer("answers.source", `mirror/${kind}/directory`, "string", url.pathname + url.search),
          ...answer("answers.proxy", `mirror/${kind}/proxy`, "string", proxy),
        ]
      : proxy
        ? answer("answers.proxy", "mirror/http/proxy", "string", proxy)
        : []),
    ...(components.length > 0
      ? linesFrom("answers.components", `tasksel tasksel/first multiselect ${groups.join(", ")}`)
      : []),
    ...(components.length > 0 || packages.length > 0
      ? answer("answers.components", "pkgsel/include", "string", packages.join(" "))
      : []),
  ];
}

/** The name of a keymap in this installer's own list: a layout, with its variant in brackets. */
function keymapOf(name: string): string {
  const { layout, variant } = xkbNames(name);
  return variant === "" ? layout : `${layout}(${variant})`;
}

/** A preseed file. Where the parts of the target have no words in its recipe, there is none: half a recipe would make another layout. */
export function writePreseed(intent: InstallIntent, profile: Profile): AnswerFile | Gap[] {
  const recipe = intent.target.parts.map((part) => ({
    part,
    words: recipeOf(part, intent.target),
  }));
  const lacks = recipe.filter(({ words }) => words === null);
  if (lacks.length > 0)
    return lacks.map(({ part }): Gap => ({
      path: "storage.target",
      message: `partition "${part.name.slice(0, 60)}" is not supported by this format: partition the target on the screen`,
    }));
  const { system, hostName, domain } = intent;
  const network = networkOf(intent, profile.network.files.includes("interfaces"));
  const accounts = accountLines(intent, network.after);
  const of = answer;
  return {
    name: `${hostName}.preseed`,
    lines: [
      ...linesFrom(
        null,
        "#_preseed_V1",
        `# ${system.name} ${system.version} on ${hostName}, written by Derrick from its build sheet.`,
      ),
      ...of("answers.locale", "debian-installer/locale", "string", intent.locale),
      ...of("answers.keyboard", "keyboard-configuration/xkb-keymap", "select", keymapOf(intent.keyboard)),
      ...network.lines,
      ...of("answers.hostName", "netcfg/get_hostname", "string", hostName),
      // What a DHCP server calls the machine would win over the answer above.
      ...of("answers.hostName", "netcfg/hostname", "string", hostName),
      ...of("answers.domain", "netcfg/get_domain", "string", domain),
      ...of("answers.timeZone", "clock-setup/utc", "boolean", "true"),
      ...of("answers.timeZone", "time/zone", "string", intent.timeZone),
      ...accounts.lines,
      ...softwareLines(intent.software, network.packages),
      ...of(
        "storage.target",
        "partman/early_command",
        "string",
        [...network.before, firstCommand(intent)].join("; "),
      ),
      ...of(
        "storage.target",
        "partman-auto/expert_recipe",
        "string",
        `derrick :: ${recipe.map(({ words }) => words).join(" ")}`,
      ),
      // The note at the end waits for a key that nobody presses on a machine that installs itself.
      ...(intent.restarts ? of(null, "finish-install/reboot_in_progress", "note", "") : []),
    ],
    byHand: [
      ...intent.beside,
      ...network.byHand,
      ...accounts.byHand,
      // An armed machine is told on the kernel's line.
      ...(intent.restarts
        ? []
        : [
            {
              path: "network.address" as const,
              message:
                "if loaded over the network, this file is too late for the questions about the network itself: answer them on the kernel command line",
            },
          ]),
      ...(intent.software.source
        ? []
        : [
            {
              path: "answers.source" as const,
              message: "answer the mirror question on the screen, or install from the medium",
            },
          ]),
      ...(intent.software.components.length > 0
        ? []
        : [{ path: "answers.components" as const, message: "choose components on the screen" }]),
    ],
  };
}
