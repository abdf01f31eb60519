import { xkbNames } from "../../identity";
import { netmaskOf, shellWord, type LinkPlan } from "../../network";
import { scriptHead } from "../../storage";
import type { Gap, InstallIntent, IntentAccount, IntentPart, IntentPath } from "../intent";
import { accountNotes } from "./accounts";
import { linesFrom, type AnswerFile, type AnswerLine } from "./line";
import { word } from "./word";

const MIB = 2 ** 20;
const STORAGE = "/tmp/derrick-storage.ks";

const MOUNTS: Readonly<Record<string, string>> = {
  root: "/",
  boot: "/boot",
  home: "/home",
  var: "/var",
  swap: "swap",
};

/** Where a part is mounted, by what it is for or by the name that the profile gives it; null where neither tells. */
function mountOf({ name, use, fs }: IntentPart): string | null {
  if (use === "efi") return "/boot/efi";
  if (use === "bios boot") return "biosboot";
  return fs === "swap" ? "swap" : (MOUNTS[name.toLowerCase()] ?? null);
}

const TYPES: Partial<Record<IntentPart["fs"], string>> = {
  vfat: "vfat",
  ext4: "ext4",
  xfs: "xfs",
  swap: "swap",
};

function typeOf(part: IntentPart): string | null {
  if (part.use === "efi") return "efi";
  return part.use === "bios boot" ? "biosboot" : (TYPES[part.fs] ?? null);
}

const sizeOf = ({ bytes, takesRest }: IntentPart): string =>
  takesRest ? "--size=1 --grow" : `--size=${Math.floor(bytes / MIB)}`;

const GROUP = "system";

const diskOf = (i: number, { drives }: InstallIntent["target"]): string =>
  drives.length === 1 ? "$disk" : `$disk${i + 1}`;

/** What stands on an array whose members firmware or another system reads as plain parts has its own record at the end. */
const recordOf = (part: IntentPart): string => (part.use === "efi" ? " --metadata=1.0" : "");

/** The lines of one part: on the one drive, or as an array of the same part of every drive of a mirror. */
function onDrives(
  target: InstallIntent["target"],
  part: IntentPart,
  number: number,
  { what, options, array }: { what: string; options: string; array: string },
): string[] {
  const { drives } = target;
  const size = sizeOf(part);
  if (drives.length === 1) return [`part ${what}${options} --ondisk=$disk ${size}`];
  // Firmware reads this part by itself, before any array is put together.
  if (part.use === "bios boot")
    return drives.map((_, i) => `part ${what}${options} --ondisk=${diskOf(i, target)} ${size}`);
  const members = drives.map((_, i) => `raid.${number}${i + 1}`);
  const spares = drives.filter((d) => d.role === "spare").length;
  return [
    ...members.map((name, i) => `part ${name} --ondisk=${diskOf(i, target)} ${size}`),
    [
      `raid ${what} --device=${array} --level=RAID1${recordOf(part)}${options}`,
      ...(spares > 0 ? [`--spares=${spares}`] : []),
      ...members,
    ].join(" "),
  ];
}

/** The parts of the target; `$disk` is the lasting name that the first script has found. */
function partLines({ target, mode }: InstallIntent): { lines: string[]; byHand: Gap[] } {
  const byHand: Gap[] = [];
  const lack = ({ name }: IntentPart): void =>
    void byHand.push({
      path: "storage.target",
      message: `create partition "${name.slice(0, 60)}" on the screen: this format does not support it`,
    });
  const lines = target.parts.flatMap((part, number) => {
    if (part.use === "lvm") {
      const volumes = part.volumes.flatMap((v) => {
        const [mount, type] = [mountOf(v), typeOf(v)];
        if (mount && type)
          return [
            `logvol ${mount} --vgname=${GROUP} --name=${mount === "/" ? "root" : mount.replace("/", "")} --fstype=${type} ${sizeOf(v)}`,
          ];
        lack(v);
        return [];
      });
      const on = onDrives(target, part, number + 1, { what: "pv.01", options: "", array: GROUP });
      return [...on, `volgroup ${GROUP} pv.01`, ...volumes];
    }
    const [mount, type] = [mountOf(part), typeOf(part)];
    if (mount && type)
      return onDrives(target, part, number + 1, {
        ...{ what: mount, options: ` --fstype=${type}` },
        array: mount === "/" ? "root" : mount.slice(mount.lastIndexOf("/") + 1),
      });
    lack(part);
    return [];
  });
  if (mode === "legacy" && target.drives.length > 1)
    byHand.push({
      path: "storage.layout",
      message:
        "the boot loader is installed on the first drive of the mirror: install it on the others once the system runs, and boot once from each",
    });
  return { lines, byHand };
}

/** The script that runs before the installer looks at any drive: it stops unless the planned drive is there, and writes what is made of it. */
function firstScript(intent: InstallIntent, parts: readonly string[]): AnswerLine[] {
  const { table, drives } = intent.target;
  const named = drives.map(({ drive, mayErase }, i) => ({ variable: `d${i + 1}`, drive, mayErase }));
  const head = scriptHead(named, intent.spared, []);
  const disks = drives.map((_, i) => diskOf(i, intent.target));
  return linesFrom(
    "storage.target",
    "%pre --erroronfail --interpreter=/bin/sh",
    ...head.flatMap((part) => part.split("\n")),
    ...disks.map((disk, i) => `${disk.slice(1)}=${"$"}{d${i + 1}#/dev/}`),
    `cat > ${STORAGE} << END_OF_STORAGE`,
    `ignoredisk --only-use=${disks.join(",")}`,
    `clearpart --all --drives=${disks.join(",")} --initlabel --disklabel=${table === "gpt" ? "gpt" : "msdos"}`,
    `bootloader --boot-drive=${disks[0]}`,
    ...parts,
    "END_OF_STORAGE",
    "%end",
  );
}

function addressOptions({ address }: LinkPlan): string[] {
  if (address === null) return ["--noipv4", "--noipv6"];
  if (address.how === "dhcp") return ["--bootproto=dhcp"];
  const { gateway, nameServers } = address;
  const own = address.address.includes(":")
    ? [
        "--noipv4",
        `--ipv6=${address.address}/${address.length}`,
        ...(gateway ? [`--ipv6gateway=${gateway}`] : []),
      ]
    : [
        "--bootproto=static",
        `--ip=${address.address}`,
        `--netmask=${netmaskOf(address.length)}`,
        ...(gateway ? [`--gateway=${gateway}`] : []),
      ];
  return [...own, ...(nameServers.length > 0 ? [`--nameserver=${nameServers.join(",")}`] : [])];
}

/** A port is named by its MAC: names move between the installer and the system. */
function deviceOptions(link: LinkPlan): string[] {
  if (link.kind === "port") return [`--device=${link.mac}`];
  if (link.kind === "vlan")
    return [`--device=${word(link.parent)}`, `--vlanid=${link.vlan}`, `--interfacename=${word(link.name)}`];
  const members = word(link.members.join(","));
  if (link.kind === "bridge") return [`--device=${word(link.name)}`, `--bridgeslaves=${members}`];
  const hash = link.mode === "802.3ad" || link.mode === "balance-xor" ? `,xmit_hash_policy=${link.hash}` : "";
  return [
    `--device=${word(link.name)}`,
    `--bondslaves=${members}`,
    word(`--bondopts=mode=${link.mode},miimon=100${hash}`),
  ];
}

function networkLines({ network }: InstallIntent): { lines: AnswerLine[]; byHand: Gap[] } {
  const aware = network.links.filter((l) => l.kind === "bridge" && l.vlanAware);
  const said = network.links.filter((l) => !aware.includes(l));
  const carried = new Set(said.flatMap((l) => ("members" in l ? l.members : [])));
  const lines = said
    .filter((l) => !carried.has(l.name))
    .map((l) =>
      [
        ...["network", ...deviceOptions(l), ...addressOptions(l)],
        ...(l.mtu === null ? [] : [`--mtu=${l.mtu}`]),
        ...["--onboot=yes", "--activate"],
      ].join(" "),
    );
  const fqdn = [network.hostName, network.domain].filter(Boolean).join(".");
  return {
    lines: [
      ...linesFrom("network.address", ...lines),
      ...linesFrom("answers.hostName", `network --hostname=${word(fqdn)}`),
    ],
    byHand: aware.map((l) => ({
      path: "network.interfaces",
      message: `bridge ${l.name} with VLAN filtering is created at the first boot from the files of zone E: this format does not support it`,
    })),
  };
}

const AS: Readonly<Record<IntentAccount["role"], string>> = {
  "super-user": "root",
  administrator: "an administrator",
  ordinary: "an ordinary user",
  service: "an account without a shell",
};

/**
 * Accounts. One that is opened by a password whose hash nobody has sealed has no line, so that the installer asks for it on
 * its screen.
 */
function accountLines({ accounts, system }: InstallIntent): { lines: AnswerLine[]; byHand: Gap[] } {
  const root = accounts.find((a) => a.role === "super-user");
  const rootLine =
    root?.hash && root.logIn !== "none" ? [`rootpw --iscrypted ${word(root.hash)}`] : ["rootpw --lock"];
  const lines = [
    ...(root?.logIn === "password" && !root.hash ? [] : rootLine),
    ...accounts.flatMap((account) => {
      const { name, role, logIn, hash, keys } = account;
      const own = keys.map((key) => `sshkey --username=${word(name)} ${word(key)}`);
      if (role === "super-user" || (logIn === "password" && !hash)) return own;
      const rights = {
        administrator: [`--groups=${word(system.adminGroup)}`],
        ordinary: [],
        service: ["--shell=/sbin/nologin"],
      }[role];
      const secret = hash && logIn !== "none" ? [`--password=${word(hash)}`, "--iscrypted"] : ["--lock"];
      return [["user", `--name=${word(name)}`, ...rights, ...secret].join(" "), ...own];
    }),
  ];
  return {
    lines: linesFrom("answers.accounts", ...lines),
    byHand: accounts.flatMap((account): Gap[] =>
      accountNotes(account, `on the screen of the installer, as ${AS[account.role]}`),
    ),
  };
}

/** A layout with a variant has another name on the console, which the installer finds by itself. */
function keyboardLine(keyboard: string): string {
  const { layout, variant } = xkbNames(keyboard);
  return variant === ""
    ? `keyboard --vckeymap=${word(keyboard)} --xlayouts=${word(keyboard)}`
    : `keyboard --xlayouts=${word(`${layout} (${variant})`)}`;
}

/** Where packages come from and which; a proxy is a word of the source's own line. */
function softwareLines({ software }: InstallIntent): {
  lines: AnswerLine[];
  packages: AnswerLine[];
  byHand: Gap[];
} {
  const { source, proxy, components, services } = software;
  const gap = (path: IntentPath, message: string): Gap => ({ path, message });
  return {
    lines: [
      ...(source
        ? linesFrom("answers.source", `url --url=${word(source)}${proxy ? ` --proxy=${word(proxy)}` : ""}`)
        : []),
      ...(services.length > 0
        ? linesFrom("answers.services", `services --enabled=${services.join(",")}`)
        : []),
    ],
    packages:
      components.length > 0 ? linesFrom("answers.components", "", "%packages", ...components, "%end") : [],
    byHand: [
      ...(proxy && !source
        ? [
            gap(
              "answers.proxy",
              "type the proxy on the screen of the package source: this format supports it only together with a source",
            ),
          ]
        : []),
      ...(components.length === 0
        ? [gap("answers.components", "choose additional software on the screen")]
        : []),
    ],
  };
}

/** What the new system runs at the end; each command is one word of a line of its own, so that none can end the section. */
const lastScript = ({ software: { finish } }: InstallIntent): AnswerLine[] =>
  finish.length === 0
    ? []
    : linesFrom(
        "answers.finish",
        "",
        "%post --erroronfail --log=/root/derrick-finish.log",
        "set -e",
        ...finish.map((command) => `sh -c ${shellWord(command)}`),
        "%end",
      );

/** A kickstart file. It holds no secret but a hash, and no name of a drive that moves. */
export function writeKickstart(intent: InstallIntent): AnswerFile {
  const { system, hostName, keyboard, locale, timeZone } = intent;
  const [parts, network, accounts] = [partLines(intent), networkLines(intent), accountLines(intent)];
  const software = softwareLines(intent);
  const plain = (from: IntentPath, text: string) => linesFrom(from, text);
  return {
    name: `${hostName}.ks`,
    lines: [
      ...linesFrom(
        null,
        `# ${system.name} ${system.version} on ${hostName}, written by Derrick from its build sheet.`,
      ),
      ...plain("image.id", system.screen),
      ...plain("answers.keyboard", keyboardLine(keyboard)),
      ...plain("answers.locale", `lang ${word(locale)}`),
      ...plain("answers.timeZone", `timezone ${word(timeZone)} --utc`),
      ...network.lines,
      ...accounts.lines,
      ...software.lines,
      // Without it the installer waits at its end for somebody who presses a key.
      ...linesFrom(null, "firstboot --disable", ...(intent.restarts ? ["reboot"] : [])),
      ...linesFrom("storage.target", `%include ${STORAGE}`),
      ...software.packages,
      ...linesFrom(null, ""),
      ...firstScript(intent, parts.lines),
      ...lastScript(intent),
    ],
    byHand: [...intent.beside, ...parts.byHand, ...network.byHand, ...accounts.byHand, ...software.byHand],
  };
}
