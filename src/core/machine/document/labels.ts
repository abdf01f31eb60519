import { bayWords, portName, presentDrives } from "../facts/describe";
import type { MachineDocument } from "../facts/document";
import { formatDecimalBytes } from "../../units";

/** What is stuck on a machine, a drive or the end of a cable: one line large, the others beneath. */
export interface Label {
  kind: "machine" | "drive" | "port";
  title: string;
  lines: string[];
}

const filled = (...lines: (string | null | undefined | false)[]): string[] =>
  lines.filter((l): l is string => Boolean(l));

/**
 * The labels of a machine: one for its front and its rear, one for each drive that can be taken in the hand, one for each
 * wired port. What is not known is left out, never filled in.
 */
export function labelsOf(name: string, { facts, typed }: MachineDocument): Label[] {
  const { chassis, controller } = facts;
  const machine: Label = {
    ...{ kind: "machine", title: name },
    lines: filled(
      typed.place,
      [chassis?.maker, chassis?.model].filter(Boolean).join(" "),
      chassis?.serial && `serial ${chassis.serial}`,
      chassis?.assetTag && `asset ${chassis.assetTag}`,
      controller?.address && `controller ${controller.address}`,
    ),
  };
  const drives = presentDrives(facts)
    .filter((d) => d.presentedBy === null && d.san === null && d.media !== "virtual")
    .map((d): Label => ({
      ...{ kind: "drive", title: d.bay ? `${name} ${bayWords(d.bay)}` : name },
      lines: filled(
        [d.model, formatDecimalBytes(d.sizeBytes)].filter(Boolean).join(", "),
        d.serial ? `serial ${d.serial}` : "no serial number",
      ),
    }));
  const ports = facts.ports
    .filter((p) => p.kind === "ethernet")
    .map((p): Label => ({
      kind: "port",
      title: `${name} ${p.seenAs}`,
      lines: filled(portName(p).split(" ").at(-1)),
    }));
  return [machine, ...drives, ...ports];
}
