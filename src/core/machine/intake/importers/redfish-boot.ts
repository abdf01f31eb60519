import type { BootEntry } from "../../facts/facts";
import { entryKind } from "./efibootmgr";
import { cleanText, type Observed } from "./importer";
import type { Resource } from "./redfish-schema";

/** "Boot0003" is entry 0003 of the firmware's list; controllers that name their options otherwise keep their names. */
const entryId = (reference: string): string =>
  /^Boot([0-9A-F]{4})$/i.exec(reference)?.[1]?.toUpperCase() ?? reference;

/** Mode, order and one-time choice of a ComputerSystem (DSP0268, property Boot), and what it does after power loss. */
export function systemBoot({ Boot, PowerRestorePolicy }: Resource): NonNullable<Observed["firmware"]> {
  const { BootSourceOverrideMode: mode, BootSourceOverrideEnabled: once, BootNext, BootOrder } = Boot ?? {};
  const policy = cleanText(PowerRestorePolicy);
  return {
    ...(mode === "UEFI" && { mode: "uefi" as const }),
    ...(mode === "Legacy" && { mode: "legacy" as const }),
    ...(BootOrder && { order: BootOrder.map(entryId) }),
    ...(BootNext && once !== "Disabled" && { nextEntry: entryId(BootNext) }),
    ...(policy && { settings: { PowerRestorePolicy: policy } }),
  };
}

/** The boot options of a system are its firmware's list, with device paths as UEFI writes them. */
export function bootOptions(list: Resource[]): Observed {
  const entries = list.flatMap((o): BootEntry[] => {
    const reference = cleanText(o.BootOptionReference ?? o.Id);
    if (!reference) return [];
    const label = cleanText(o.DisplayName ?? o.Name) ?? "(no name)";
    const path = cleanText(o.UefiDevicePath) ?? "";
    return [
      {
        id: entryId(reference),
        label,
        path,
        active: o.BootOptionEnabled !== false,
        kind: entryKind(path, label),
      },
    ];
  });
  return entries.length > 0 ? { firmware: { entries } } : {};
}
