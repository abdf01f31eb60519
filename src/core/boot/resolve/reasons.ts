/** How an attempt ends. */
export type Outcome = "starts" | "skipped" | "fails" | "hangs" | "returns";

export interface Reason {
  outcome: Exclude<Outcome, "starts">;
  /** The whole sentence; {device}, {entry} and {file} come from the attempt. */
  says: string;
  /** Seconds until the firmware goes on, as measured; UEFI and legacy. Absent where it goes on at once. */
  seconds?: { uefi?: number; legacy?: number };
}

const skipped = (says: string): Reason => ({ outcome: "skipped", says });
const fails = (says: string, seconds?: Reason["seconds"]): Reason => ({
  outcome: "fails",
  says,
  ...(seconds && { seconds }),
});
const hangs = (says: string): Reason => ({ outcome: "hangs", says });

/**
 * Why an attempt does not start a system. The waits were measured with firmware in emulated machines, one port and IPv4
 * only; they tell an order of magnitude.
 */
export const REASONS = {
  "entry inactive": skipped("{entry} is disabled."),
  "entry application": skipped("{entry} is a firmware application, which the boot order does not start."),
  "entry missing": skipped("{entry} is first in the boot order, but does not exist."),
  "entry removed": skipped(
    "{entry} was created by the firmware for a missing device; the firmware removes it.",
  ),
  "entry dropped": skipped("{entry} is not in the boot order that was given to the emulator."),
  "device absent": fails("{device} is missing."),
  "device hidden": fails("The firmware cannot see {device}: {why}."),
  "partition missing": fails("No drive has the partition that {entry} names."),
  "table unreadable": fails("Both copies of the partition table of {device} are damaged."),
  "file missing": fails("{file} is not on {device}."),
  "no fallback loader": fails("{device} has no loader at the default path."),
  "other architecture": fails("{device} has only a loader for another processor architecture."),
  "no file system": fails("{device} has no FAT file system, and the firmware reads no other."),
  "not a program": fails("{file} on {device} is not an EFI program."),
  "wrong code": fails("{file} on {device} is for another processor architecture."),
  "not signed": fails("Secure Boot refuses {file} on {device}: it is not signed with a key of the firmware."),
  "shell refused": fails("Secure Boot refuses the shell of the firmware."),
  "loader error": fails("{file} on {device} returned with an error."),
  "no UEFI image": fails("The disc in {device} has no UEFI boot image."),
  "no medium": fails("{device} has no medium."),
  "nobody answers": fails("No server responds in the network of {device}.", { uefi: 63, legacy: 22 }),
  "no boot file": fails(
    "The DHCP server in the network of {device} assigns an address but names no boot file.",
    {
      uefi: 63,
      legacy: 8,
    },
  ),
  "boot file missing": fails("The boot file for {device} is not on the server.", {
    uefi: 4,
    legacy: 9,
  }),
  "boot file no program": fails("The boot file for {device} is not a program.", {
    uefi: 6,
    legacy: 9,
  }),
  "link down": fails("{device} has no link.", { uefi: 4, legacy: 22 }),
  "needs compatibility": fails("{entry} needs legacy mode, which is off."),
  "path unreadable": fails("The path of {entry} is not valid."),
  "no disk": fails("There is no disk, although the firmware tries one."),
  "no floppy": fails("There is no floppy drive, although the firmware tries one.", {
    legacy: 3,
  }),
  "sectors unreadable": fails("Legacy BIOS firmware cannot read the sectors of {device}."),
  "no signature": fails("The first sector of {device} does not end with 55 AA, so it is not bootable."),
  "beyond reach": {
    outcome: "returns",
    says: "The boot code of {device} started; its next part is above 2 TiB, which legacy BIOS cannot read over USB.",
  },
  "gave up": { outcome: "returns", says: "The boot code of {device} started and gave up." },
  "no catalogue": fails("The disc in {device} has no boot catalogue."),
  "UEFI image only": fails("The disc in {device} has a UEFI boot image only."),
  "loader hangs": hangs("{file} on {device} starts and freezes; some firmware resets after five minutes."),
  "second stage refused": hangs(
    "{file} on {device} stops with an error: the program that it should load is not signed.",
  ),
  "code hangs": hangs(
    "{device} has a valid first sector without boot code; the firmware starts it and freezes.",
  ),
  "loader returned": {
    outcome: "returns",
    says: "{file} on {device} returned without an error, so the firmware opens its setup.",
  },
} as const satisfies Record<string, Reason>;

export type ReasonCode = keyof typeof REASONS;

/** Words for why a device is hidden. */
export const HIDDEN_WORDS = {
  "card not enabled": "the card is disabled",
  "card still syncing": "the cards are still synchronising",
  "behind the controller": "its controller presents it only as part of an array",
  "not licensed": "the licence of the management controller excludes virtual media",
  "not mapped": "no file is mapped",
  "not activated": "the medium is mapped but not activated",
  "session lost": "the session that mapped it has ended",
  "no hardware initiator": "booting from a SAN needs a hardware initiator",
  "too new for the firmware": "the firmware has no driver for it",
} as const;
