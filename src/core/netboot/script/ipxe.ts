import { consoleWords } from "./plain";

export interface BootFiles {
  kernel: string;
  initrd: string[];
  words: string[];
}

/** How often a machine tries to read its files, and how long it waits between; then it starts from its own disk. */
export const TRIES = 3;
export const PAUSE_SECONDS = 10;

const line = (text: string): string => `echo Derrick: ${consoleWords(text)}`;

/** The way out: the firmware goes on to its next boot device, which of an installed machine is its disk. */
const toDisk = (words: string): string[] => [
  ":local",
  ...(words ? [line(words)] : []),
  line("Booting from the local disk."),
  "sleep 5",
  "exit 1",
];

/**
 * The script that every machine is pointed at: it asks again, with all that its firmware tells of it. The MAC has hyphens: a
 * colon would make what stands before it the scheme of an address, and written for URLs its bare bytes would stand there, of
 * which the first zero ends the address (both seen). There is inc, and no dec.
 */
export const ipxeFirst = (): string =>
  [
    "#!ipxe",
    line("Requesting instructions for this machine."),
    "set tries:int32 0",
    ":again",
    "chain --replace script?mac=${netX/mac:hexhyp}&serial=${serial:uristring}&uuid=${uuid}&maker=${manufacturer:uristring}&model=${product:uristring}&platform=${platform:uristring}&code=${code:uristring} ||",
    line("The answer could not be loaded."),
    "inc tries",
    `iseq \${tries} ${TRIES} && goto local ||`,
    `sleep ${PAUSE_SECONDS}`,
    "goto again",
    ...toDisk(""),
    "",
  ].join("\n");

/** So long a console waits for a hand before the machine starts from its own disk. */
const CODE_SECONDS = 300;

/**
 * Has a person type the code of the arming at the console of the machine; a prompt before it, since iPXE's read waits for ever.
 * The setting stays, so that what is asked again, also for a turn, carries it.
 */
export const ipxeCode = (why: string): string =>
  [
    "#!ipxe",
    line(why),
    `prompt --timeout ${CODE_SECONDS * 1000} Derrick: press a key to enter the code. || goto local`,
    "clear code ||",
    "echo -n Code:",
    "read code || goto local",
    "chain --replace boot.ipxe ||",
    ...toDisk("The answer could not be loaded."),
    "",
  ].join("\n");

/** What a boot medium of its own starts with (autoexec.ipxe, or the script built in): the code of one arming is in it. */
export const ipxeMedium = (base: string, code: string): string =>
  [
    "#!ipxe",
    `set code ${code}`,
    "dhcp ||",
    `chain --replace ${base}/boot.ipxe ||`,
    ...toDisk("The boot service could not be reached."),
    "",
  ].join("\n");

/** So long a machine waits before it asks for its turn again. */
export const TURN_SECONDS = 30;

/** Has the machine ask again in a while; where nobody answers any more, it starts from its own disk. */
export const ipxeWait = (why: string): string =>
  [
    "#!ipxe",
    line(why),
    `sleep ${TURN_SECONDS}`,
    "chain --replace boot.ipxe ||",
    ...toDisk("The answer could not be loaded."),
    "",
  ].join("\n");

/** Starts the machine from its own disk, and says why on its console. */
export const ipxeLocal = (why: string): string => ["#!ipxe", ...toDisk(why), ""].join("\n");

/** iPXE parts words at blanks and joins them again, and knows no quotes: those are the kernel's, for the value of one setting. */
const kernelWord = (word: string): string => {
  const [, name, value] = /^([^=]+)=(.* .*)$/.exec(word) ?? [];
  return name === undefined ? word : `${name}="${value}"`;
};

/**
 * Reads kernel and initial file systems and starts the installer. Under UEFI the kernel finds them by name, which BIOS
 * passes over. What cannot be read is tried again, and then the machine starts from its own disk.
 */
export function ipxeInstall({ kernel, initrd, words }: BootFiles, title: string): string {
  const names = initrd.map((_, i) => `initrd${i + 1}`);
  return [
    "#!ipxe",
    line(title),
    "set tries:int32 0",
    ":again",
    "imgfree ||",
    [
      "kernel",
      kernel,
      ...names.map((name) => `initrd=${name}`),
      ...words.map(kernelWord),
      "|| goto failed",
    ].join(" "),
    ...initrd.map((url, i) => `initrd --name ${names[i]} ${url} || goto failed`),
    "boot || goto failed",
    ":failed",
    line("The kernel or the initramfs could not be loaded or started."),
    "inc tries",
    `iseq \${tries} ${TRIES} && goto local ||`,
    `sleep ${PAUSE_SECONDS}`,
    "goto again",
    ...toDisk("The installer could not be started."),
    "",
  ].join("\n");
}
