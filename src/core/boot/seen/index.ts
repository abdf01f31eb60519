import type { Facts } from "../../machine";
import type { Arch, BootMachine, LegacyMachine, UefiMachine } from "../resolve";
import { seenDevices } from "./devices";
import { seenEntry } from "./entries";

export { HERE, reachesSan, shortName } from "./devices";

/** Whether the list of boot entries was read; no tool tells the order of a legacy firmware. */
export const isListRead = ({ firmware }: Facts): boolean => (firmware?.entries ?? []).length > 0;

const ARCHES: Readonly<Record<string, Arch>> = {
  x86_64: "x64",
  amd64: "x64",
  aarch64: "aa64",
  arm64: "aa64",
  i686: "ia32",
};

/**
 * The machine as it was read, in a mode; what was not read is not known to the resolver either. `marks` are the labels by
 * which the profile of the running system knows the drives of that.
 */
export function seenMachine(facts: Facts, mode: "uefi" | "legacy", marks: readonly string[]): BootMachine {
  return mode === "uefi" ? seenUefi(facts, marks) : seenLegacy(facts, marks);
}

const archOf = ({ processors }: Facts): Arch => ARCHES[processors?.architecture ?? ""] ?? "x64";

function seenUefi(facts: Facts, marks: readonly string[]): UefiMachine {
  const { firmware } = facts;
  const entries = (firmware?.entries ?? []).map(seenEntry);
  return {
    ...{ mode: "uefi", arch: archOf(facts), devices: seenDevices(facts, entries, marks), entries },
    secureBoot: firmware?.secureBoot ?? null,
    order: isListRead(facts) ? (firmware?.order ?? []) : null,
    once: firmware?.nextEntry ?? null,
    ...{ toSetup: false, compatibility: null, emulatorOrder: null },
    programs: { setup: null, shell: null },
    remembered: new Map(),
  };
}

function seenLegacy(facts: Facts, marks: readonly string[]): LegacyMachine {
  return {
    ...{
      mode: "legacy",
      arch: archOf(facts),
      devices: seenDevices(facts, [], marks),
      once: null,
      strict: false,
    },
    order: [{ type: "disk" }, { type: "disc" }, { type: "network" }],
  };
}
