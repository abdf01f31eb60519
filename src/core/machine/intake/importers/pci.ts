import { fail, ok, type Result } from "../../../result";
import { own } from "../../../text";
import type { PciDevice, StorageController } from "../../facts/facts";
import {
  blocksOf,
  cleanPlace,
  cleanText,
  plural,
  type Importer,
  type Observed,
  type Reading,
} from "./importer";

type ObservedPci = Partial<PciDevice> & Pick<PciDevice, "slot">;

const QUOTED = /"((?:[^"\\]|\\.)*)"|(\S+)/g;
const idOf = (value: string | undefined): string => /\[([0-9a-f]{4})\]\s*$/.exec(value ?? "")?.[1] ?? "????";
const nameOf = (value: string | undefined): string =>
  cleanText((value ?? "").replace(/ ?\[[0-9a-f]{4}\]\s*$/, "")) ?? "(unnamed)";
const slotOf = (value: string): string => value.trim().replace(/^0000:/, "");

/** Storage controllers by their PCI class: what the class alone tells about how drives behind them are shown. */
const STORAGE: Record<string, StorageController["mode"]> = {
  "0104": "RAID",
  "0107": "host adapter",
  "0106": "plain",
  "0101": "plain",
  "0100": "unknown",
};

const controllersOf = (devices: ObservedPci[]): Observed["storageControllers"] =>
  devices.flatMap((d) => {
    const mode = own(STORAGE, d.classId ?? "");
    return mode
      ? [{ id: d.slot, name: d.device ?? "storage controller", mode, driver: d.driver ?? null }]
      : [];
  });

function reading(devices: ObservedPci[]): Result<Reading> {
  return ok({
    facts: { pci: devices, storageControllers: controllersOf(devices) },
    understood: plural(devices.length, "PCI function"),
    ignored: [],
    complete: { pci: true },
  });
}

/** `lspci -nnmm`: class, maker and device of each PCI function, with ids in brackets. */
export const lspci: Importer = {
  tool: "lspci",
  command: "lspci -nnmm",
  recognises: (text) => /^(?:[0-9a-f]{4}:)?[0-9a-f]{2}:[0-9a-f]{2}\.[0-7] "/m.test(text.slice(0, 400)),
  parse(text): Result<Reading> {
    const devices = text.split(/\r?\n/).flatMap((line): ObservedPci[] => {
      const words = [...line.matchAll(QUOTED)]
        .map((m) => m[1] ?? m[2] ?? "")
        .filter((w, i) => i === 0 || !/^-[rp]/.test(w));
      const [slot = "", classText = "", maker, device, subMaker, subDevice] = words;
      if (idOf(classText) === "????") return [];
      return [
        {
          slot: slotOf(slot),
          className: nameOf(classText),
          classId: idOf(classText),
          maker: nameOf(maker),
          device: nameOf(device),
          ids: `${idOf(maker)}:${idOf(device)}`,
          subsystem: subDevice ? `${idOf(subMaker)}:${idOf(subDevice)}` : null,
        },
      ];
    });
    return devices.length === 0
      ? fail({ message: "no line has IDs in brackets; run lspci with -nnmm", line: 1 })
      : reading(devices);
  },
};

/** `lspci -nnvmmk` (also -vmm): a block a function, "Name:<tab>value", with driver, slot and IOMMU group. */
export const lspciVerbose: Importer = {
  tool: "lspci -vmm",
  command: "lspci -nnvmmk",
  recognises: (text) => /^Slot:\t/.test(text.trimStart()),
  parse(text): Result<Reading> {
    const devices = blocksOf(text).flatMap((block): ObservedPci[] => {
      const values = new Map(
        block
          .split(/\r?\n/)
          .map((l) => /^([A-Za-z]+):\t(.*)$/.exec(l))
          .filter((m) => m !== null)
          .map((m) => [m[1] ?? "", m[2] ?? ""] as const),
      );
      const slot = values.get("Slot");
      if (!slot || !values.has("Class") || !values.has("Device")) return [];
      const group = values.get("IOMMUGroup");
      const place = cleanPlace(values.get("PhySlot"));
      return [
        {
          slot: slotOf(slot),
          className: nameOf(values.get("Class")),
          classId: idOf(values.get("Class")),
          maker: nameOf(values.get("Vendor")),
          device: nameOf(values.get("Device")),
          ids: `${idOf(values.get("Vendor"))}:${idOf(values.get("Device"))}`,
          subsystem: values.has("SDevice")
            ? `${idOf(values.get("SVendor"))}:${idOf(values.get("SDevice"))}`
            : null,
          driver: cleanText(values.get("Driver")),
          iommuGroup: group && /^\d+$/.test(group) ? Number(group) : null,
          place: place ? `slot ${place}` : null,
        },
      ];
    });
    if (devices.every((d) => d.classId === "????"))
      return fail({ message: "the IDs are missing; run lspci with -nn in addition to -vmmk", line: 1 });
    return reading(devices);
  },
};

/** The listing of /sys/kernel/iommu_groups: one path a line, ".../iommu_groups/12/devices/0000:01:00.0". */
export const iommuGroups: Importer = {
  tool: "iommu groups",
  command: "find /sys/kernel/iommu_groups -type l",
  recognises: (text) => /iommu_groups(\/\d+\/devices\/|$|: no groups)/m.test(text.slice(0, 400)),
  parse(text): Result<Reading> {
    const devices = [...text.matchAll(/iommu_groups\/(\d+)\/devices\/(\S+)/g)].map((m) => ({
      slot: slotOf(m[2] ?? ""),
      iommuGroup: Number(m[1]),
    }));
    const groups = new Set(devices.map((d) => d.iommuGroup)).size;
    return ok({
      facts: { processors: { iommu: groups > 0 }, pci: devices },
      understood:
        groups > 0
          ? `${plural(groups, "IOMMU group")} of ${plural(devices.length, "device")}`
          : "no IOMMU group: the IOMMU is off or missing",
      ignored: [],
    });
  },
};
