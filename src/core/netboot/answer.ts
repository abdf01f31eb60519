import { isSerial, plain, type Arming, type Caller } from "./arming";
import { isCode } from "./code";
import { isClosed, type ArmingState } from "./state";

/** What a machine that asks is given: the installation, or its own disk, and why in words for its console. */
export type Given =
  | { given: true }
  | { given: false; words: string; second: boolean }
  /** It is to show the code of its arming; `wrong` where it has shown another one. */
  | { asksCode: true; given: false; words: string; wrong: boolean };

/** What a machine is told that nobody has armed. */
export const UNARMED = "This machine is not armed for an installation.";

/** What is told to who names no MAC: it is no machine that could be armed, and is not listed as one. */
export const NO_MAC = "The boot loader reported no MAC address of this machine.";

export const ASKS_CODE = "Type the console code of this machine (see Network installations in Derrick).";
const WRONG_CODE = "Wrong console code.";

const local = (words: string, second = false): Given => ({ given: false, words, second });

/** Whether the one who asks is the armed machine: by a MAC of it and by its serial, both. */
function isNot({ machine }: Arming, { mac, serial }: Caller): string | null {
  if (!machine.macs.includes(mac.toLowerCase())) return "This MAC is not that of the armed machine.";
  if (!isSerial(serial))
    return `The firmware reports no serial number, so the machine cannot be identified as ${machine.name}.`;
  return plain(serial) === plain(machine.serial)
    ? null
    : `A machine with this MAC is armed, but its serial number differs from that of this machine.`;
}

/**
 * What a machine gets that asks for a boot script. Whoever is not armed, is another machine, comes too late, or has had its
 * installation starts from its own disk. `code` is what was typed at its console, or stands on its boot medium.
 */
export function answerTo(
  caller: Caller,
  code: string,
  arming: Arming | null,
  state: ArmingState | null,
): Given {
  if (!arming || !state) return local(UNARMED);
  const other = isNot(arming, caller);
  if (other) return local(other);
  if (state.status === "cancelled") return local("The installation of this machine was cancelled.");
  if (state.status === "expired") return local("The arming of this machine has expired.");
  if (state.status === "failed")
    return local("The installation of this machine failed. Arm it again to repeat it.");
  if (isClosed(state) || state.spentAt !== null || state.reached.installing)
    // It tells that it is installed before it starts again: who asks earlier may be another one than the one that installs itself.
    return local(
      "Already installed. Arm the machine again to reinstall it.",
      state.status === "installing" && !state.reached["first boot"],
    );
  // Another one may claim both MAC and serial: of two that do, one has its installation already, and only a person can tell which.
  if (state.givenTo !== null)
    return local("The installation was already started once. Arm the machine again to repeat it.", true);
  if (arming.code === "" || isCode(code, arming.code)) return { given: true };
  const wrong = code.trim() !== "";
  return { asksCode: true, given: false, words: wrong ? WRONG_CODE : ASKS_CODE, wrong };
}
