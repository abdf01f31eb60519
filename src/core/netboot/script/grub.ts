import { consoleWords } from "./plain";
import { PAUSE_SECONDS, TRIES, TURN_SECONDS, type BootFiles } from "./ipxe";

/** One word of GRUB's shell, in which a semicolon would end a command. */
const grubWord = (text: string): string =>
  /^[\w./:=,@%+-]+$/.test(text) ? text : `'${text.replaceAll("'", "'\\''")}'`;

const say = (text: string): string => `echo 'Derrick: ${consoleWords(text)}'`;

/** A path on the server that GRUB itself was read from. */
const onServer = (url: string): string => {
  const { host, pathname, search } = new URL(url);
  return `(http,${host})${pathname}${search}`;
};

/** Where a system on a disk is started from when nothing else is said (UEFI 2.10, 3.5.1.1). */
const ON_DISK = "/EFI/BOOT/BOOTX64.EFI";

/**
 * The way out. A GRUB that tells its firmware of no error has it open its set-up pages (seen with 2.06), so that the disk is
 * started by GRUB itself, and only without one the firmware goes on.
 */
const TO_DISK = [
  say("Booting from the local disk."),
  "sleep 5",
  `if search --no-floppy --file --set=disk ${ON_DISK}; then`,
  `  if chainloader ($disk)${ON_DISK}; then`,
  "    boot",
  "  fi",
  "fi",
  "exit 1",
];

/**
 * What goes on by itself where it succeeds, and is tried again where it does not: GRUB begins with the same ports after each
 * start, of which a server may still hold one closed for a minute (seen).
 */
const tries = (lines: readonly string[]): string[] => [
  `for try in ${Array.from({ length: TRIES }, (_, i) => i + 1).join(" ")}; do`,
  ...lines.map((line) => `  ${line}`),
  `  sleep ${PAUSE_SECONDS}`,
  "done",
];

/** What a serial may be made of, so that GRUB can put it into an address: it encodes nothing. */
const PLAIN = "^[A-Za-z0-9._-]+$";

/**
 * What GRUB itself is started with, beside it on the server of the boot loaders (grub/grub.cfg): it asks again, with MAC and
 * serial. It wants a GRUB with the modules http and smbios in it, read where a code is asked for, and up to 2.06 one that is asked on port 80: the one that
 * Debian 12 has signed has no http, and loads no module under secure boot (seen).
 */
export const grubFirst = (base: string): string => {
  const at = `(http,${new URL(base).host})/grub.cfg`;
  return [
    "# For the signed boot loader, written by Derrick: it asks Derrick what this machine is to boot.",
    "set timeout=0",
    say("Requesting instructions for this machine."),
    "smbios --type 1 --get-string 7 --set serial",
    `if regexp '${PLAIN}' "$serial"; then`,
    ...tries([
      `configfile "${at}?mac=\${net_default_mac}&serial=\${serial}&platform=efi"`,
      say("The answer could not be loaded."),
    ]).map((line) => `  ${line}`),
    "else",
    "  " + say("The firmware reports no serial number, or one with characters that GRUB cannot send."),
    "fi",
    ...TO_DISK,
    "",
  ].join("\n");
};

/** Has a person type the code of the arming; what was typed is sent only where GRUB can send it. */
export const grubCode = (why: string, again: string): string =>
  [
    say(why),
    "echo -n 'Code: '",
    "read code",
    // GRUB encodes nothing: only the letters of what was typed may stand in an address.
    `if regexp --set 1:a --set 2:b --set 3:c '^ *([A-Za-z]+)[ -]*([A-Za-z]*)[ -]*([A-Za-z]*) *$' "$code"; then`,
    `  configfile "${onServer(again)}&code=\${a}\${b}\${c}"`,
    "fi",
    ...TO_DISK,
    "",
  ].join("\n");

/** Has the machine ask again in a while. */
export const grubWait = (why: string, again: string): string =>
  [say(why), `sleep ${TURN_SECONDS}`, `configfile "${onServer(again)}"`, ...TO_DISK, ""].join("\n");

/** Starts the machine from its own disk: the firmware goes on to its next boot device. */
export const grubLocal = (why: string): string => [say(why), ...TO_DISK, ""].join("\n");

/** The same as for iPXE, whose "and then" GRUB's shell does not have (seen). */
export const grubInstall = ({ kernel, initrd, words }: BootFiles, title: string): string =>
  [
    say(title),
    ...tries([
      `if linux ${grubWord(onServer(kernel))} ${words.map(grubWord).join(" ")}; then`,
      `  if initrd ${initrd.map((url) => grubWord(onServer(url))).join(" ")}; then`,
      "    boot",
      "  fi",
      "fi",
    ]),
    grubLocal("The installer could not be loaded."),
  ].join("\n");
