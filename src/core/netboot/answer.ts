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
export const UNARMED = "Nobody has armed this machine for an installation.";

/** What is told to who names no MAC: it is no machine that could be armed, and is not listed as one. */
export const NO_MAC = "The boot loader told no MAC address of this machine.";

export const ASKS_CODE = "Type the code of its arming, which stands on Derrick's board.";
const WRONG_CODE = "That is not the code of this arming.";

const local = (words: string, second = false): Given => ({ given: false, words, second });

/** Whether the one who asks is the armed machine: by a MAC of it and by its serial, both. */
function isNot({ machine }: Arming, { mac, serial }: Caller): string | null {
  if (!machine.macs.includes(mac.toLowerCase())) return "This MAC is not that of the armed machine.";
  if (!isSerial(serial))
    return `The firmware tells no serial number, so nobody can know that this is ${machine.name}.`;
  return plain(serial) === plain(machine.serial)
    ? null
    : `A machine with this MAC was armed, but its serial number is another one than this machine's.`;
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
  if (state.status === "cancelled") return local("The installation of this machine was called off.");
  if (state.status === "expired") return local("The time for which this machine was armed is over.");
  if (state.status === "failed")
    return local("The installation of this machine has failed; it is not begun again by itself.");
  if (isClosed(state) || state.spentAt !== null || state.reached.installing)
    // It tells that it is installed before it starts again: who asks earlier may be another one than the one that installs itself.
    return local(
      "This machine has had its installation; it is armed anew for another one.",
      state.status === "installing" && !state.reached["first boot"],
    );
  // Another one may claim both MAC and serial: of two that do, one has its installation already, and only a person can tell which.
  if (state.givenTo !== null)
    return local(
      "This installation was given already, and is given once; a person arms the machine again.",
      true,
    );
  if (arming.code === "" || isCode(code, arming.code)) return { given: true };
  const wrong = code.trim() !== "";
  return { asksCode: true, given: false, words: wrong ? WRONG_CODE : ASKS_CODE, wrong };
}
