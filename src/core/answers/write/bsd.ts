import type { Profile } from "../../image";
import { driveLook } from "../../machine";
import { NETWORK_WRITERS, shellWord, type HostPlan, type LinkPlan } from "../../network";
import { survives } from "../../storage";
import type { Gap, InstallIntent, IntentAccount, IntentDrive, IntentPart, IntentPath } from "../intent";
import { accountNotes } from "./accounts";
import { BSD_FUNCTIONS } from "./bsd-functions";
import { linesFrom, type AnswerFile, type AnswerLine } from "./line";

const KIB = 2 ** 10;
const ROOT = "/mnt";

/** Types of parts by the numbers that the table holds (GPT), as the partition tool takes them behind a "!". */
const TYPES = {
  efi: "!c12a7328-f81f-11d2-ba4b-00a0c93ec93b",
  "bios boot": "!83bd6b9d-7f41-11dc-be0b-001560b84f0f",
  swap: "!516e7cb5-6ecf-11d6-8ff8-00022d09712b",
  zfs: "!516e7cba-6ecf-11d6-8ff8-00022d09712b",
} as const;
const LABELS = { efi: "efi", "bios boot": "boot", swap: "swap", zfs: "root" } as const;
type BsdPart = IntentPart & { use: keyof typeof TYPES };

const isBsdPart = (part: IntentPart): part is BsdPart => part.use in TYPES;

const from = linesFrom;
const serialOf = ({ drive }: IntentDrive): string => (drive.serial ?? "").replace(/\s+/g, "");

/** What finds every drive of the target, and stops before the first write where one is not the planned one. */
function finding({ target, spared }: InstallIntent): AnswerLine[] {
  const kept = [...new Set(spared.map((d) => (d.serial ?? "").replace(/\s+/g, "")).filter(Boolean))];
  return from(
    "storage.target",
    ...target.drives.flatMap((one, i) => {
      const [name, what] = [`"$d${i + 1}"`, shellWord(driveLook(one.drive))];
      return [
        `d${i + 1}=$(name_of ${shellWord(serialOf(one))} ${one.drive.sizeBytes} ${what})`,
        ...(kept.length > 0
          ? [
              `case $(serial_of ${name}) in ${kept.map((s) => shellWord(s)).join(" | ")}) stop ${shellWord(`${driveLook(one.drive)} must not be touched`)} ;; esac`,
            ]
          : []),
        `idle ${name} ${what}`,
        ...(one.mayErase ? [] : [`bare ${name} ${what}`]),
      ];
    }),
  );
}

const sizeWord = ({ bytes, takesRest }: IntentPart): string =>
  takesRest ? "" : ` -s ${Math.floor(bytes / KIB)}k`;

/** A part of the drive `$dN` as a device: by its place in the table, since another drive may have a part of the same label. */
const partAt = (parts: readonly BsdPart[], use: BsdPart["use"], n: number): string =>
  `"/dev/\${d${n}}p${parts.findIndex((p) => p.use === use) + 1}"`;

/** Labels hold the name of the machine: 36 characters are all that a table has for one. */
const labelOf = (hostName: string, use: BsdPart["use"], n: number): string =>
  `${hostName.slice(0, 24)}-${LABELS[use]}${n}`;

/** The table of one drive with its parts; every drive of the target is cut alike, and can be started from. */
function cutting({ hostName, mode }: InstallIntent, parts: readonly BsdPart[], n: number): string[] {
  const drive = `"$d${n}"`;
  return [
    `gpart destroy -F ${drive} >/dev/null 2>&1 || :`,
    `zpool labelclear -f "/dev/$d${n}" >/dev/null 2>&1 || :`,
    `gpart create -s gpt ${drive}`,
    ...parts.map(
      (part) =>
        `gpart add -a 1m${sizeWord(part)} -t '${TYPES[part.use]}' -l ${labelOf(hostName, part.use, n)} ${drive}`,
    ),
    ...(mode === "uefi"
      ? [`newfs_msdos -F 32 -c 1 ${partAt(parts, "efi", n)}`]
      : [
          `gpart bootcode -b /boot/pmbr -p /boot/gptzfsboot -i ${parts.findIndex((p) => p.use === "bios boot") + 1} ${drive}`,
        ]),
  ];
}

const LAYOUT_WORDS: Readonly<Record<string, string>> = { "single drive": "", stripe: "" };

/** Datasets of the root pool: the system in one of its own, so that another can be made beside it and gone back from. */
const DATASETS = [
  ["ROOT", "-o mountpoint=none"],
  ["ROOT/default", "-o mountpoint=/"],
  ["home", "-o mountpoint=/home"],
  ["tmp", "-o mountpoint=/tmp -o setuid=off"],
  ["var", "-o mountpoint=/var -o canmount=off"],
  ["var/audit", "-o exec=off -o setuid=off"],
  ["var/crash", "-o exec=off -o setuid=off"],
  ["var/log", "-o exec=off -o setuid=off"],
  ["var/mail", "-o atime=on"],
  ["var/tmp", "-o setuid=off"],
] as const;

function pooling({ target }: InstallIntent, parts: readonly BsdPart[], pool: string): string[] {
  const seat = (role: IntentDrive["role"]): string =>
    target.drives.flatMap((d, i) => (d.role === role ? [partAt(parts, "zfs", i + 1)] : [])).join(" ");
  const kind = LAYOUT_WORDS[target.layout] ?? `${target.layout} `;
  const spares = seat("spare");
  return [
    `zpool create -f -R ${ROOT} -o ashift=12 -O compression=on -O atime=off -O mountpoint=none ${pool} ${kind}${seat("member")}${spares ? ` spare ${spares}` : ""}`,
    ...DATASETS.map(([name, options]) => `zfs create ${options} ${pool}/${name}`),
    `zpool set bootfs=${pool}/ROOT/default ${pool}`,
    `chmod 1777 ${ROOT}/tmp ${ROOT}/var/tmp`,
  ];
}

/** A drive that fails must not take the swap of a running system with it. */
function swapping(
  { target, hostName }: InstallIntent,
  parts: readonly BsdPart[],
): { before: string[]; lines: string[]; loader: string[] } {
  const numbers = target.drives.flatMap((d, i) => (d.role === "member" ? [i + 1] : []));
  if (!parts.some((p) => p.use === "swap")) return { before: [], lines: [], loader: [] };
  const entry = (device: string): string =>
    `printf '%s\\n' '/dev/${device} none swap sw 0 0' >> ${ROOT}/etc/fstab`;
  const labels = numbers.map((n) => labelOf(hostName, "swap", n));
  if (survives(target.layout, numbers.length) === 0)
    return {
      before: labels.map((l) => `ours ${l} ${target.drives.map((_, i) => `"$d${i + 1}"`).join(" ")}`),
      lines: labels.map((label) => entry(`gpt/${label}`)),
      loader: [],
    };
  // The kernel keeps 15 characters for the name of a mirror.
  const mirror = `${hostName.slice(0, 10)}-swap`;
  const members = numbers.map((n) => partAt(parts, "swap", n)).join(" ");
  return {
    before: [],
    lines: [
      `gmirror clear ${members} >/dev/null 2>&1 || :`,
      "gmirror load >/dev/null 2>&1 || :",
      `gmirror label -b prefer ${mirror} ${members}`,
      entry(`mirror/${mirror}`),
    ],
    loader: ['geom_mirror_load="YES"'],
  };
}

/** Text as a file of the new system; no line of it can end it, since none is alone with that word. */
const fileOf = (path: string, lines: readonly string[], append = false): string[] => [
  `cat ${append ? ">>" : ">"} ${ROOT}${path} << 'END_OF_FILE'`,
  ...lines,
  "END_OF_FILE",
];

/** Ports stand under marks, since what this system calls them is found by their MAC once it runs. */
function marked(plan: HostPlan): { plan: HostPlan; ports: { mark: string; mac: string }[] } {
  const ports = plan.links
    .flatMap((l) => (l.kind === "port" ? [l] : []))
    .map(({ name, mac }, i) => {
      return { name, mac, mark: `derrick_port_${String(i + 1).padStart(2, "0")}` };
    });
  const as = (name: string): string => ports.find((p) => p.name === name)?.mark ?? name;
  const links = plan.links.map((link): LinkPlan => {
    const own = { ...link, name: as(link.name) };
    if (own.kind === "vlan") return { ...own, parent: as(own.parent) };
    return own.kind === "bond" || own.kind === "bridge" ? { ...own, members: own.members.map(as) } : own;
  });
  return { plan: { ...plan, links }, ports };
}

function networking({ network, keyboard, software: { services } }: InstallIntent): {
  /** What is found out before any drive is written. */
  before: AnswerLine[];
  lines: AnswerLine[];
  byHand: Gap[];
} {
  const { plan, ports } = marked(network);
  const { files, problems } = NETWORK_WRITERS["rc.conf"]!(plan);
  const lines = files.flatMap(({ path, text }) => fileOf(path, text.trimEnd().split("\n")));
  return {
    before: from(
      "network.port",
      ...ports.map(({ mac }, i) => `p${i + 1}=$(port_of ${shellWord(mac.toLowerCase())})`),
    ),
    lines: [
      ...from("network.address", ...lines),
      ...from(
        "network.port",
        ...ports.map(({ mark }, i) => `sed -i '' "s/${mark}/$p${i + 1}/g" ${ROOT}/etc/rc.conf`),
      ),
      ...from(
        "answers.keyboard",
        `keymap=${shellWord(keyboard)}`,
        `if [ -e "${ROOT}/usr/share/vt/keymaps/$keymap.kbd" ]; then`,
        `  printf 'keymap="%s"\\n' "$keymap" >> ${ROOT}/etc/rc.conf`,
        "else",
        `  printf 'MANUAL: there is no keymap "%s" here, so the keymap of the console is unchanged\\n' "$keymap" >&2`,
        "fi",
      ),
      ...from(
        null,
        ...fileOf(
          "/etc/rc.conf",
          [
            'zfs_enable="YES"',
            'sshd_enable="YES"',
            'ntpd_enable="YES"',
            'clear_tmp_enable="YES"',
            'syslogd_flags="-ss"',
          ],
          true,
        ),
      ),
      ...(services.length > 0
        ? from(
            "answers.services",
            // rc.conf is read by a shell: a name of a variable has letters, digits and underlines only.
            ...fileOf(
              "/etc/rc.conf",
              services.map((s) => `${s.replace(/\W/g, "_")}_enable="YES"`),
              true,
            ),
          )
        : []),
    ],
    byHand: problems.map(({ message }): Gap => ({ path: "network.interfaces", message })),
  };
}

/** Commands that make one account, or set up the super-user; a hash goes in by the standard input, which nobody sees in a list of processes. */
function accountCommands({ name, role, logIn, hash, keys }: IntentAccount, adminGroup: string): string[] {
  const user = shellWord(name);
  const kind = {
    "super-user": `usermod -n ${user}`,
    administrator: `useradd -n ${user} -m -s /bin/sh -G ${shellWord(adminGroup)}`,
    ordinary: `useradd -n ${user} -m -s /bin/sh`,
    service: `useradd -n ${user} -d /nonexistent -s /usr/sbin/nologin`,
  }[role];
  const secret =
    hash && logIn !== "none"
      ? `printf '%s\\n' ${shellWord(hash)} | pw -R ${ROOT} ${kind} -H 0`
      : `pw -R ${ROOT} ${kind} -h -`;
  if (keys.length === 0 || role === "service") return [secret];
  const home = role === "super-user" ? "/root" : `/home/${name}`;
  const file = shellWord(`${ROOT}${home}/.ssh/authorized_keys`);
  return [
    secret,
    `mkdir -p -m 700 ${shellWord(`${ROOT}${home}/.ssh`)}`,
    ...keys.map((key) => `printf '%s\\n' ${shellWord(key)} >> ${file}`),
    `chmod 600 ${file}`,
    `chroot ${ROOT} chown -R ${user} ${shellWord(`${home}/.ssh`)}`,
  ];
}

function accounting({ accounts, system }: InstallIntent): { lines: AnswerLine[]; byHand: Gap[] } {
  const allow = accounts.some((a) => a.logIn === "password" && a.role !== "service");
  const root = accounts.find((a) => a.role === "super-user");
  const sshd = [
    ...(root && root.keys.length > 0 ? ["PermitRootLogin prohibit-password"] : []),
    ...(allow ? [] : ["PasswordAuthentication no", "KbdInteractiveAuthentication no"]),
  ];
  return {
    lines: from(
      "answers.accounts",
      // Nobody said so of the super-user: without this line it would be open to whoever types nothing.
      ...(root ? [] : [`pw -R ${ROOT} usermod -n ${shellWord(system.superUser)} -h -`]),
      ...accounts.flatMap((a) => accountCommands(a, system.adminGroup)),
      ...(sshd.length > 0 ? fileOf("/etc/ssh/sshd_config", sshd, true) : []),
    ),
    byHand: accounts.flatMap((a) => accountNotes(a, "by an administrator who can log in", !allow)),
  };
}

/** Packages of this system are fetched by its own tool, once it runs. */
const softwareByHand = ({ source, proxy, components }: InstallIntent["software"]): Gap[] => {
  const gap = (path: IntentPath, message: string): Gap[] => [{ path, message }];
  return [
    ...(source ? gap("answers.source", "set the package source once the system runs") : []),
    ...(proxy ? gap("answers.proxy", "set the proxy once the system runs") : []),
    ...(components.length > 0
      ? gap("answers.components", `once the system runs: pkg install ${components.join(" ")}`)
      : []),
  ];
};

/** Puts the loader where firmware looks for it by itself, on every drive. */
const loading = ({ target, mode }: InstallIntent, parts: readonly BsdPart[]): string[] =>
  mode === "legacy"
    ? []
    : [
        "case $(uname -m) in arm64) loader=BOOTAA64.EFI ;; *) loader=BOOTX64.EFI ;; esac",
        `mkdir -p ${ROOT}/boot/efi`,
        ...target.drives.flatMap((_, i) => [
          `mount -t msdosfs ${partAt(parts, "efi", i + 1)} ${ROOT}/boot/efi`,
          `mkdir -p ${ROOT}/boot/efi/EFI/BOOT`,
          `cp ${ROOT}/boot/loader.efi "${ROOT}/boot/efi/EFI/BOOT/$loader"`,
          `umount ${ROOT}/boot/efi`,
        ]),
      ];

/** The parts that this script has words for, or the ones that it has none for. */
function partsOf({ target, mode }: InstallIntent): { parts: BsdPart[]; gaps: Gap[] } {
  const parts = target.parts.filter(isBsdPart);
  const gap = (path: IntentPath, message: string): Gap => ({ path, message });
  const needs = mode === "uefi" ? "efi" : "bios boot";
  return {
    parts,
    gaps: [
      ...target.parts
        .filter((p) => !isBsdPart(p))
        .map(({ name }) =>
          gap("storage.target", `partition "${name.slice(0, 60)}" is not supported by this script`),
        ),
      ...(["zfs", needs] as const).flatMap((use) =>
        parts.some((p) => p.use === use)
          ? []
          : [
              gap(
                "storage.target",
                `the profile has no partition for ${use === "zfs" ? "the root pool" : "the loader"}`,
              ),
            ],
      ),
    ],
  };
}

/**
 * The script that installs a BSD with its root on ZFS, run in the shell of its own medium. It reads every drive before it
 * writes any, checks every set against the list of sums beside it, and leaves the pool exported.
 */
export function writeBsd(
  intent: InstallIntent,
  { distribution }: Pick<Profile, "distribution">,
): AnswerFile | Gap[] {
  if (!distribution)
    return [{ path: "image.id", message: "the profile does not define the installation sets of its medium" }];
  const { parts, gaps } = partsOf(intent);
  if (gaps.length > 0) return gaps;
  const { system, hostName, target } = intent;
  const { at, sets, pool } = distribution;
  const [network, accounts, swap] = [networking(intent), accounting(intent), swapping(intent, parts)];
  const zone = shellWord(`${ROOT}/usr/share/zoneinfo/${intent.timeZone}`);
  const section = (words: string, ...lines: AnswerLine[]): AnswerLine[] => [
    ...from(null, "", `# ${words}`),
    ...lines,
  ];
  return {
    name: `${hostName}.sh`,
    lines: [
      ...from(
        null,
        "#!/bin/sh",
        `# ${system.name} ${system.version} on ${hostName}, written by Derrick from its build sheet.`,
        "# It is run in a shell of the install medium, and stops before the first write where a drive is not the planned one.",
        ...BSD_FUNCTIONS.trimEnd().split("\n"),
      ),
      ...from("image.id", ...sets.map((set) => `sum_of ${shellWord(at)} ${shellWord(set)}`)),
      ...from(
        "storage.layout",
        `if zpool list -H -o name ${pool} >/dev/null 2>&1; then stop "a pool of this name is here already"; fi`,
      ),
      ...network.before,
      ...finding(intent),
      ...from("storage.swap", ...swap.before),
      ...section(
        "Every drive is the planned one. From here on they are written.",
        ...from("storage.target", ...target.drives.flatMap((_, i) => cutting(intent, parts, i + 1))),
        ...from("storage.layout", ...pooling(intent, parts, pool)),
      ),
      ...section(
        "The system.",
        ...from("image.id", ...sets.map((set) => `tar -xpf ${shellWord(`${at}/${set}`)} -C ${ROOT}`)),
        ...from("storage.swap", `: > ${ROOT}/etc/fstab`, ...swap.lines),
        ...from(null, ...fileOf("/boot/loader.conf", ['zfs_load="YES"', ...swap.loader], true)),
        ...from("boot.mode", ...loading(intent, parts)),
      ),
      ...section("Its names, network and time; the clock of the machine is in UTC.", ...network.lines),
      ...from("answers.timeZone", `cp ${zone} ${ROOT}/etc/localtime`, `rm -f ${ROOT}/etc/wall_cmos_clock`),
      ...section("Who may log in.", ...accounts.lines),
      ...(intent.software.finish.length > 0
        ? section(
            "What the new system runs once.",
            ...from(
              "answers.finish",
              ...intent.software.finish.map((command) => `chroot ${ROOT} sh -c ${shellWord(command)}`),
            ),
          )
        : []),
      ...section(
        "The end.",
        ...from(null, `zpool export ${pool}`, "echo 'Installed. Remove the medium and restart the machine.'"),
      ),
    ],
    byHand: [
      ...intent.beside,
      ...network.byHand,
      ...accounts.byHand,
      ...softwareByHand(intent.software),
      {
        path: "answers.locale",
        message: `set ${intent.locale} for each account once the system runs: this system has no system-wide locale`,
      },
    ],
  };
}
