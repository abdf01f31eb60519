import type { NetworkFormat, NetworkProfile } from "../../image";
import type { WrittenFile } from "./host-plan";
import { shellWord } from "./shell-word";

/** What makes a system read its network files again. */
const APPLY: Record<NetworkFormat, string> = {
  netplan: "netplan apply",
  "systemd-networkd": "networkctl reload && systemctl restart systemd-networkd",
  interfaces: "if command -v ifreload >/dev/null; then ifreload -a; else systemctl restart networking; fi",
  "key files": "nmcli connection reload && systemctl restart NetworkManager",
  "rc.conf": "service netif restart && service routing restart",
};

/**
 * These two kinds may hold secrets and are read by root alone. The others are read by services and programs of other users:
 * systemd-networkd is one, and whoever looks up a name.
 */
const modeOf = (path: string): string => (/^\/etc\/(netplan|NetworkManager)\//.test(path) ? "600" : "644");

const END = "END_OF_FILE_FROM_DERRICK";

/** A file as a here-document that the shell does not look into; its text has no line that would end it. */
const hereDocument = ({ path, text }: WrittenFile): string[] => [
  `mkdir -p ${shellWord(path.replace(/\/[^/]+$/, "") || "/")}`,
  `cat > ${shellWord(path)} <<'${END}'`,
  ...text
    .replace(/\n$/, "")
    .split("\n")
    .filter((line) => line !== END),
  END,
  `chmod ${modeOf(path)} ${shellWord(path)}`,
];

const frame = (
  keep: readonly string[],
  change: readonly string[],
  back: readonly string[],
  minutes: number,
): string =>
  [
    "#!/bin/sh",
    "# Written by Derrick. Changes the network of this machine, and restores the old state automatically",
    `# after ${minutes} minutes, unless you confirm in time that the new one works:  touch /run/derrick-keep-network`,
    "# (If this session is lost, wait: the old address responds again.) Do not restart the machine meanwhile: a restart ends",
    "# the timer, and the new state stays.",
    "set -eu",
    `wait_seconds=\${WAIT_SECONDS:-${minutes * 60}}`,
    "keep=${KEEP_FILE:-/run/derrick-keep-network}",
    "old=$(mktemp -d /var/tmp/derrick-network.XXXXXX)",
    'rm -f "$keep"',
    "",
    "# The present state.",
    ...keep,
    "",
    "put_back() {",
    ...back.map((line) => `  ${line}`),
    "}",
    "",
    "# Continues when this session ends.",
    "(",
    "  trap '' HUP",
    '  sleep "$wait_seconds"',
    '  if [ ! -e "$keep" ]; then put_back; fi',
    ") >/dev/null 2>&1 &",
    "",
    "# The change.",
    ...change,
    'echo "Changed. If it works, confirm with: touch $keep"',
    'echo "Otherwise the old state is restored in $wait_seconds seconds; it is saved in $old."',
    "",
  ].join("\n");

/** A script that puts network files in place, and the old ones back after some minutes unless somebody says that it works. */
export function timedFiles(format: NetworkFormat, files: readonly WrittenFile[], minutes = 5): string {
  const at = (path: string): string => `"$old"${shellWord(path)}`;
  const keep = files.flatMap(({ path }) => [
    `if [ -e ${shellWord(path)} ]; then mkdir -p "$old"${shellWord(path.replace(/\/[^/]+$/, ""))} && cp -p ${shellWord(path)} ${at(path)}; fi`,
  ]);
  const back = files.map(
    ({ path }) =>
      `if [ -e ${at(path)} ]; then cp -p ${at(path)} ${shellWord(path)}; else rm -f ${shellWord(path)}; fi`,
  );
  const apply = APPLY[format];
  return frame(keep, [...files.flatMap(hereDocument), apply], [...back, apply], minutes);
}

/** The same for lines of a tool that can keep its state and put it back; null where it cannot. */
export function timedCommands(
  lines: readonly string[],
  { commands }: NetworkProfile,
  minutes = 5,
): string | null {
  const { save, restore } = commands;
  if (!save || !restore) return null;
  const file = (template: string): string => template.replaceAll("{file}", '"$old/state"');
  return frame([file(save)], lines, [file(restore)], minutes);
}
