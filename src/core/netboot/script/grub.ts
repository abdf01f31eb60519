import { consoleWords } from "./plain";
import type { BootFiles } from "./ipxe";

/** One word of GRUB's shell, in which a semicolon would end a command. */
const grubWord = (text: string): string =>
  /^[\w./:=,@%+-]+$/.test(text) ? text : `'${text.replaceAll("'", "'\\''")}'`;

const say = (text: string): string => `echo 'Derrick: ${consoleWords(text)}'`;

/** A path on the server that GRUB itself was read from. */
const onServer = (url: string): string => {
  const { host, pathname } = new URL(url);
  return `(http,${host})${pathname}`;
};

/** Starts the machine from its own disk: the firmware goes on to its next boot device. */
export const grubLocal = (why: string): string =>
  [say(why), say("Starting from the local disk."), "sleep 5", "exit 1", ""].join("\n");

/** The same as for iPXE, for machines that start the signed boot loader of their family. */
export const grubInstall = ({ kernel, initrd, words }: BootFiles, title: string): string =>
  [
    say(title),
    `if linux ${grubWord(onServer(kernel))} ${words.map(grubWord).join(" ")} && initrd ${initrd.map((url) => grubWord(onServer(url))).join(" ")}; then`,
    "  boot",
    "fi",
    grubLocal("The installer could not be read."),
  ].join("\n");
