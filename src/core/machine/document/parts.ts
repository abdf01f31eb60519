import { bayWords, presentDrives } from "../facts/describe";
import type { MachineDocument } from "../facts/document";
import { formatDecimalBytes } from "../../units";

/** One thing that is asked of a machine by name: what it is called, its value, and other words that it is found by. */
export interface MachinePart {
  label: string;
  value: string;
  words: string;
}

/**
 * What a person asks of a machine by words: its serial number, MACs, addresses, place, keys and drives. What was not
 * collected is left out. The serial number of a drive finds it and is not shown, since a guard may ask for it.
 */
export function machineParts({ facts, typed }: MachineDocument): MachinePart[] {
  const { chassis, controller, firmware } = facts;
  const part = (label: string, value: string | null | undefined, words = ""): MachinePart[] =>
    value ? [{ label, value, words }] : [];
  return [
    ...part("serial number", chassis?.serial, "sn"),
    ...part("asset tag", chassis?.assetTag),
    ...part("model", [chassis?.maker, chassis?.model].filter(Boolean).join(" ")),
    ...facts.ports.flatMap((p) => part(`MAC of ${p.seenAs}`, p.mac, `port ${p.otherNames.join(" ")}`)),
    ...facts.ports.flatMap((p) =>
      p.addresses.flatMap((a) => part(`address of ${p.seenAs}`, a.address, "ip port")),
    ),
    ...part("management controller", controller?.address, "address ip bmc"),
    ...part("location", typed.place, "rack place"),
    ...part("circuit", typed.circuit),
    ...part("firmware", firmware?.version, "bios uefi version"),
    ...part("firmware setup key", typed.keys.setup),
    ...part("boot menu key", typed.keys.bootMenu),
    ...part("network boot key", typed.keys.network),
    ...presentDrives(facts).flatMap((d) =>
      part(
        d.bay ? `drive in ${bayWords(d.bay)}` : "drive",
        [d.model, formatDecimalBytes(d.sizeBytes)].filter(Boolean).join(", "),
        `disk ${d.serial ?? ""}`,
      ),
    ),
  ];
}

/** The parts in which all these words stand. */
export const partsWith = (document: MachineDocument, words: readonly string[]): MachinePart[] =>
  machineParts(document).filter((p) => {
    const text = `${p.label} ${p.value} ${p.words}`.toLowerCase();
    return words.every((w) => text.includes(w));
  });
