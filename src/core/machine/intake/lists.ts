import { isBag } from "../../document";
import type { MachineDocument } from "../facts/document";

/** A group of facts, or one item of a list of them, while it is being put together. */
export type Item = Record<string, unknown>;

/** The items of what ought to be a list of them. */
export const itemsIn = (value: unknown): Item[] => (Array.isArray(value) ? value.filter(isBag) : []);

export interface ListRule {
  /** The field that names an item. */
  key: string;
  /** One source stands for the whole item, not one for each field. */
  brief: boolean;
  /** What becomes of an item that a whole listing does not show any more. */
  whenGone: "marked" | "kept" | "forgotten";
  /** The field by which another thing in the same place is told. */
  another?: string;
}

/** Lists of facts, and how their items are known again. */
export const LISTS = {
  drives: { key: "id", brief: false, whenGone: "marked" },
  ports: { key: "mac", brief: false, whenGone: "kept" },
  pci: { key: "slot", brief: true, whenGone: "forgotten", another: "ids" },
  sets: { key: "id", brief: true, whenGone: "forgotten" },
  storageControllers: { key: "id", brief: true, whenGone: "forgotten" },
  sensors: { key: "id", brief: true, whenGone: "forgotten" },
  powerSupplies: { key: "id", brief: true, whenGone: "forgotten" },
} as const satisfies Record<string, ListRule>;
export type ListName = keyof typeof LISTS;

/** Tools that list the same things. Others see other things: a controller shows drives that the system never does. */
const KIN: readonly (readonly string[])[] = [
  ["lsblk", "geom disk"],
  ["lspci", "lspci -vmm", "iommu groups", "pciconf"],
];
const areKin = (a: string, b: string): boolean =>
  a === b || KIN.some((kin) => kin.includes(a) && kin.includes(b));

/** The items of a list that a tool, or one that lists the same things, has spoken of. */
export function gone(
  document: MachineDocument,
  group: ListName,
  list: readonly Item[],
  tool: string,
): Item[] {
  const { key, brief } = LISTS[group];
  if (brief) {
    const spoke = (item: Item): string => document.sources[`${group}.${String(item[key])}`]?.tool ?? tool;
    return list.filter((item) => areKin(spoke(item), tool));
  }
  const spokenOf = new Set<string>();
  for (const path in document.sources)
    if (path.startsWith(`${group}.`) && areKin(document.sources[path]!.tool, tool))
      spokenOf.add(path.slice(group.length + 1, path.lastIndexOf(".")));
  return list.filter((item) => spokenOf.has(String(item[key])));
}
