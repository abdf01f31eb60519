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
  "entry inactive": skipped("{entry} is switched off in the list."),
  "entry application": skipped("{entry} is a program of the firmware that the order does not start."),
  "entry missing": skipped("{entry} is to be started, and there is no such entry."),
  "entry removed": skipped(
    "{entry} was the firmware's own, for a device that is not there; it takes the entry away.",
  ),
  "entry dropped": skipped("{entry} is not in the order of devices that the emulator was given."),
  "device absent": fails("{device} is not there."),
  "device hidden": fails("{device} cannot be seen by the firmware: {why}."),
  "partition missing": fails("No drive has the partition that {entry} names."),
  "table unreadable": fails("Both copies of the partition table of {device} are damaged."),
  "file missing": fails("{file} is not on {device}."),
  "no fallback loader": fails("{device} has no loader at the path where firmware looks by itself."),
  "other architecture": fails("{device} has a loader only for another kind of processor."),
  "no file system": fails("{device} has no FAT file system where the firmware looks, and it reads no other."),
  "not a program": fails("{file} on {device} is not an EFI program."),
  "wrong code": fails("{file} on {device} holds code for another kind of processor."),
  "not signed": fails("Secure boot refuses {file} on {device}: no key of the firmware has signed it."),
  "shell refused": fails("Secure boot refuses the firmware's own shell."),
  "loader error": fails("{file} on {device} ran and came back with an error."),
  "no UEFI image": fails("The disc in {device} has no boot image for UEFI."),
  "no medium": fails("There is no medium in {device}."),
  "nobody answers": fails("Nothing on the network of {device} answers.", { uefi: 63, legacy: 22 }),
  "no boot file": fails("The network of {device} gives an address and no boot file.", {
    uefi: 63,
    legacy: 8,
  }),
  "boot file missing": fails("The boot file that {device} is told is not on the server.", {
    uefi: 4,
    legacy: 9,
  }),
  "boot file no program": fails("What {device} is given by the network is not a program.", {
    uefi: 6,
    legacy: 9,
  }),
  "link down": fails("{device} has no link.", { uefi: 4, legacy: 22 }),
  "needs compatibility": fails("{entry} is for legacy mode, which is switched off."),
  "path unreadable": fails("The path of {entry} cannot be read."),
  "no disk": fails("There is no disk, and the firmware tries the kind all the same."),
  "no floppy": fails("There is no floppy drive, and the firmware tries the kind all the same.", {
    legacy: 3,
  }),
  "sectors unreadable": fails("Legacy firmware cannot read the sectors of {device}."),
  "no signature": fails("{device} does not end its first sector with 55 AA, so it is no boot disk."),
  "beyond reach": {
    outcome: "returns",
    says: "The boot code of {device} ran; what it loads lies above 2 TiB, where legacy firmware does not reach over USB.",
  },
  "gave up": { outcome: "returns", says: "The boot code of {device} ran and gave up." },
  "no catalogue": fails("The disc in {device} has no boot catalogue."),
  "UEFI image only": fails("The disc in {device} has a boot image for UEFI only."),
  "loader hangs": hangs(
    "{file} on {device} runs and does nothing more; some firmware resets after five minutes.",
  ),
  "second stage refused": hangs(
    "{file} on {device} stops on its own error: what it should load next is not signed.",
  ),
  "code hangs": hangs(
    "{device} has a valid first sector and nothing in it; the firmware jumps there and stays.",
  ),
  "loader returned": {
    outcome: "returns",
    says: "{file} on {device} came back without an error, so the firmware opens its set-up pages.",
  },
} as const satisfies Record<string, Reason>;

export type ReasonCode = keyof typeof REASONS;

/** Words for why a device is hidden. */
export const HIDDEN_WORDS = {
  "card not enabled": "the card is not enabled",
  "card still syncing": "the cards are still syncing",
  "behind the controller": "its controller shows it only as part of a set",
  "not licensed": "the management controller may not map media",
  "not mapped": "no file is mapped",
  "not activated": "the medium is mapped and not activated",
  "session lost": "the session that carried it is gone",
  "no hardware initiator": "a SAN is started from only by a hardware initiator",
  "too new for the firmware": "the firmware has no driver for it",
} as const;
