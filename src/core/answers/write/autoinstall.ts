import { stringify } from "yaml";
import { netplanTree, shellWord } from "../../network";
import { scriptHead } from "../../storage";
import { componentsOf } from "../software";
import type { Gap, InstallIntent, IntentPart, IntentPath } from "../intent";
import { accountNotes } from "./accounts";
import { cloudKeyboard, cloudLogIn, cloudNames, cloudUser } from "./cloud-user";
import { linesFrom, type AnswerFile, type AnswerLine } from "./line";

type Node = Record<string, unknown>;

/** One key of the file with all that stands under it; each line is of the field that the key comes from. */
const section = (from: IntentPath | null, tree: Node): AnswerLine[] =>
  linesFrom(
    from,
    ...stringify(tree, { lineWidth: 0 })
      .trimEnd()
      .split("\n")
      .map((line) => (line === "" ? "" : `  ${line}`)),
  );

const MOUNTS: Readonly<Record<string, string>> = { root: "/", boot: "/boot", home: "/home", var: "/var" };

/** A part or a volume with what is made on it; null for a part that the format has no words for. */
function filled(part: IntentPart, id: string): Node[] | null {
  if (part.use === "bios boot") return [];
  const mount = part.use === "efi" ? "/boot/efi" : MOUNTS[part.name.toLowerCase()];
  const type = part.use === "efi" ? "fat32" : part.fs;
  const format = { id: `${id}-fs`, type: "format", volume: id, fstype: type };
  if (part.fs === "swap")
    return [format, { id: `${id}-mount`, type: "mount", device: `${id}-fs`, path: "none" }];
  if (mount === undefined || !["fat32", "ext4", "xfs"].includes(type)) return null;
  return [format, { id: `${id}-mount`, type: "mount", device: `${id}-fs`, path: mount }];
}

const GROUP = "system";

function groupOf(part: IntentPart, id: string): Node[] | null {
  const volumes = part.volumes.map((v, i) => {
    const own = `${id}-volume-${i + 1}`;
    const made = filled(v, own);
    return (
      made && [
        {
          id: own,
          type: "lvm_partition",
          volgroup: `${id}-group`,
          name: v.name.toLowerCase(),
          size: v.takesRest ? -1 : v.bytes,
        },
        ...made,
      ]
    );
  });
  return volumes.some((v) => v === null)
    ? null
    : [
        { id: `${id}-group`, type: "lvm_volgroup", name: GROUP, devices: [id] },
        ...volumes.flatMap((v) => v ?? []),
      ];
}

/** What is made of the target, in the order in which it is made; the parts that the format has no words for. */
function storageOf({ target, mode }: InstallIntent): { config: Node[]; lacks: IntentPart[] } {
  const serial = (target.drives[0].drive.serial ?? "").trim();
  const config: Node[] = [
    {
      ...{
        id: "target",
        type: "disk",
        ptable: target.table === "gpt" ? "gpt" : "msdos",
        wipe: "superblock",
        preserve: false,
      },
      // The command before it puts the name in its place that udev has for this drive, which may not even hold the serial.
      ...{ match: { serial: `*${serial.replace(/[*?[\]\s'"]/g, "?")}` }, grub_device: mode === "legacy" },
    },
  ];
  const lacks: IntentPart[] = [];
  target.parts.forEach((part, i) => {
    const id = `part-${i + 1}`;
    const made = part.use === "lvm" ? groupOf(part, id) : filled(part, id);
    if (made === null) return void lacks.push(part);
    const flag = part.use === "efi" ? "boot" : part.use === "bios boot" ? "bios_grub" : undefined;
    config.push(
      {
        ...{
          id,
          type: "partition",
          device: "target",
          number: i + 1,
          size: part.takesRest ? -1 : part.bytes,
          wipe: "superblock",
          preserve: false,
        },
        ...(flag && { flag }),
        ...(part.use === "efi" && { grub_device: true }),
      },
      ...made,
    );
  });
  return { config, lacks };
}

/** Who is made by the file itself: all, once no password is still to be typed. */
function accountsOf({ accounts, hostName, domain, system }: InstallIntent): {
  sections: AnswerLine[];
  byHand: Gap[];
} {
  const typed = accounts.filter((a) => a.logIn === "password" && a.role !== "service" && !a.hash);
  const gap = (path: Gap["path"], message: string): Gap => ({ path, message });
  const [first] = typed;
  const users = {
    users: accounts.filter((a) => !typed.includes(a)).map((a) => cloudUser(a, system.adminGroup)),
  };
  const allow = accounts.some((a) => a.logIn === "password" && a.role !== "service");
  const remote = { ssh: { "install-server": true, "allow-pw": allow } };
  if (!first)
    return {
      sections: section("answers.accounts", {
        ...remote,
        "user-data": { ...cloudNames(hostName, domain), ...cloudLogIn(accounts), ...users },
      }),
      byHand: accounts.flatMap((a) => accountNotes(a, "", !allow)),
    };
  return {
    sections: [
      ...section("answers.accounts", { "interactive-sections": ["identity"] }),
      ...section("answers.accounts", remote),
      ...(users.users.length > 0
        ? section("answers.accounts", { "user-data": { ...cloudLogIn(accounts), ...users } })
        : []),
    ],
    byHand: [
      gap(
        "answers.hostName",
        `type the name ${hostName} on the screen of the profile: this format supports it only together with a password`,
      ),
      gap(
        "answers.accounts",
        `create ${first.name} on the same screen, with its password: no hash of it is stored`,
      ),
      ...typed
        .slice(1)
        .map(({ name }) =>
          gap("answers.accounts", `create ${name} at the first boot: no hash of its password is stored`),
        ),
      ...accounts.filter((a) => !typed.includes(a)).flatMap((a) => accountNotes(a, "", !allow)),
    ],
  };
}

function softwareLines({
  source,
  proxy,
  components,
  services,
  finish,
}: InstallIntent["software"]): AnswerLine[] {
  const { packages } = componentsOf(components);
  return [
    ...(proxy ? section("answers.proxy", { proxy }) : []),
    ...(source
      ? section("answers.source", { apt: { primary: [{ arches: ["default"], uri: source }] } })
      : []),
    ...(packages.length > 0 ? section("answers.components", { packages }) : []),
    // A key may stand once in a document: services and commands are one list.
    ...(services.length + finish.length > 0
      ? section(services.length > 0 ? "answers.services" : "answers.finish", {
          "late-commands": [
            ...services.map((s) => `systemctl enable ${s}`),
            ...finish.map((command) => `sh -c ${shellWord(command)}`),
          ].map((command) => `curtin in-target --target=/target -- ${command}`),
        })
      : []),
  ];
}

const byHandOf = ({ beside, network, software }: InstallIntent): Gap[] => [
  ...beside,
  ...componentsOf(software.components).groups.map((group): Gap => ({
    path: "answers.components",
    message: `add the group ${group} once the system runs: this format supports packages only`,
  })),
  ...network.links.flatMap((l): Gap[] =>
    l.kind === "bridge" && l.vlanAware
      ? [
          {
            path: "network.interfaces",
            message: `bridge ${l.name}: VLAN filtering is enabled at the first boot, because this format does not support it`,
          },
        ]
      : [],
  ),
];

/**
 * Puts what udev calls the drive that was found into the file that the installer reads again afterwards: it compares with
 * ID_SERIAL, which of a SAS drive is its world wide name (seen). The installer takes the first drive that fits, so that no
 * other may. What fits none stops it.
 */
const NAMED = String.raw`file=${"$"}{AUTOINSTALL:-/autoinstall.yaml}
udev_name() {
  udevadm info --query=property --name="$1" | sed -n 's/^ID_SERIAL=//p'
}
name=$(udev_name "$d1")
case $name in
  "" | *[!A-Za-z0-9#+.:=@_-]*) stop "udev has no name for the target that the installer could compare" ;;
esac
alike=0
for other in "${"$"}{SYS:-/sys}"/block/*; do
  case $(udev_name "/dev/${"$"}{other##*/}") in *"$name") alike=$((alike + 1)) ;; esac
done
[ "$alike" -eq 1 ] || stop "$alike drives have a name that ends as that of the target does"
[ "$(grep -c '^ *serial: .\*' "$file")" -eq 1 ] || stop "the drive is not named once in $file"
sed -i "s/^\( *serial: \).\*.*/\1'*$name'/" "$file"
`;

/** The user data of an installer that takes cloud-config. Where its storage has no words for a part of the target, there is none. */
export function writeAutoinstall(intent: InstallIntent): AnswerFile | Gap[] {
  const { config, lacks } = storageOf(intent);
  if (lacks.length > 0)
    return lacks.map(({ name }): Gap => ({
      path: "storage.target",
      message: `partition "${name.slice(0, 60)}" is not supported by this format: partition the target on the screen`,
    }));
  const { system, hostName, target, spared } = intent;
  const [{ drive, mayErase }] = target.drives;
  const accounts = accountsOf(intent);
  const head = scriptHead([{ variable: "d1", drive, mayErase }], spared, []);
  return {
    name: `${hostName}.user-data`,
    lines: [
      ...linesFrom(
        null,
        "#cloud-config",
        `# ${system.name} ${system.version} on ${hostName}, written by Derrick from its build sheet.`,
        "autoinstall:",
      ),
      ...section(null, { version: 1 }),
      ...accounts.sections,
      ...section("answers.locale", { locale: intent.locale }),
      ...section("answers.keyboard", { keyboard: cloudKeyboard(intent.keyboard) }),
      ...section("answers.timeZone", { timezone: intent.timeZone }),
      // A command that fails ends the installation before any drive is written.
      ...section("storage.target", { "early-commands": [`${head.join("\n").trimEnd()}\n${NAMED}`] }),
      ...softwareLines(intent.software),
      ...section("network.address", netplanTree(intent.network)),
      ...section("storage.target", { storage: { config } }),
    ],
    byHand: [...byHandOf(intent), ...accounts.byHand],
  };
}
