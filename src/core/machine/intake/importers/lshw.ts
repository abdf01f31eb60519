import { z } from "zod";
import { ok, type Result } from "../../../result";
import type { Drive } from "../../facts/drive";
import type { Port } from "../../facts/facts";
import {
  cleanText,
  parseShaped,
  plausibleBytes,
  plural,
  type Importer,
  type Observed,
  type Reading,
} from "./importer";

const nodeSchema = z.object({
  id: z.string().optional(),
  class: z.string(),
  description: z.string().optional(),
  product: z.string().optional(),
  vendor: z.string().optional(),
  version: z.string().optional(),
  date: z.string().optional(),
  serial: z.string().optional(),
  businfo: z.string().optional(),
  slot: z.string().optional(),
  logicalname: z.union([z.string(), z.array(z.string())]).optional(),
  size: z.number().optional(),
  capacity: z.number().optional(),
  clock: z.number().optional(),
  configuration: z.record(z.string(), z.union([z.string(), z.number(), z.boolean()])).optional(),
  get children() {
    return z.array(nodeSchema).optional();
  },
});
type Node = z.infer<typeof nodeSchema>;

const flat = (nodes: Node[]): Node[] => nodes.flatMap((n) => [n, ...flat(n.children ?? [])]);
const nameOf = (node: Node): string => ([node.logicalname].flat()[0] ?? "").replace(/^\/dev\//, "");
const pciOf = (node: Node): string | null => /^pci@(?:0000:)?(.+)$/.exec(node.businfo ?? "")?.[1] ?? null;

/** Slots and sockets that lshw lists although nothing is in them. */
const isEmpty = (node: Node): boolean => /\[empty\]/i.test(`${node.description} ${node.product}`);

/** `lshw -json` (one object, or a list of them in other versions): chassis, memory modules, drives, ports, controllers. */
export const lshw: Importer = {
  tool: "lshw",
  command: "lshw -json",
  recognises: (text) => /^\s*\[?\s*\{\s*"id"\s*:/.test(text) && /"class"\s*:\s*"/.test(text.slice(0, 1000)),
  parse(text): Result<Reading> {
    const parsed = parseShaped(text, z.union([nodeSchema, z.array(nodeSchema)]), "lshw");
    if (!parsed.ok) return parsed;
    const roots = [parsed.value].flat();
    const nodes = flat(roots);
    const system = nodes.find((n) => n.class === "system");
    // A virtual device stands below the PCI function that carries it, which has its place and its maker.
    const carrier = new Map(nodes.flatMap((n) => (n.children ?? []).map((c) => [c, n] as const)));
    const placeOf = (n: Node): string | null => pciOf(n) ?? pciOf(carrier.get(n) ?? n);
    const drives = nodes.filter((n) => isDrive(n)).map((n) => toDrive(n, carrier.get(n)));
    const ports = nodes
      .filter((n) => n.class === "network" && n.serial && placeOf(n))
      .map((n) => toPort(n, placeOf(n)));
    const controllers = nodes.filter((n) => n.class === "storage" && pciOf(n) && n.id !== "nvme");
    const facts: Observed = {
      ...(system && {
        chassis: {
          maker: cleanText(system.vendor),
          model: cleanText(withoutStockNumber(system.product)),
          serial: cleanText(system.serial),
        },
      }),
      ...firmwareOf(nodes),
      ...memoryOf(nodes),
      drives,
      ports,
      storageControllers: controllers.map((n) => ({
        id: pciOf(n) ?? "",
        name: cleanText(n.product) ?? "storage controller",
        driver: cleanText(String(n.configuration?.driver ?? "")),
      })),
    };
    return ok({
      facts,
      understood: `${plural(drives.length, "drive")}, ${plural(ports.length, "port")}, ${plural(controllers.length, "storage controller")}`,
      ignored: [`${nodes.length} nodes in all; other tools report volumes, bridges and inputs better`],
    });
  },
};

/** lshw adds the stock number in brackets behind the product. */
function withoutStockNumber(product: string | undefined): string | undefined {
  const at = product?.endsWith(")") ? product.lastIndexOf(" (") : -1;
  return at < 0 ? product : product?.slice(0, at);
}

function firmwareOf(nodes: Node[]): Observed {
  const firmware = nodes.find((n) => n.class === "memory" && n.id === "firmware");
  return firmware
    ? {
        firmware: {
          maker: cleanText(firmware.vendor),
          version: cleanText(firmware.version),
          releaseDate: cleanText(firmware.date),
        },
      }
    : {};
}

function memoryOf(nodes: Node[]): Observed {
  const banks = nodes.filter((n) => n.class === "memory" && /^bank(:\d+)?$/.test(n.id ?? ""));
  if (banks.length === 0) return {};
  const modules = banks.map((n) => ({
    slot: cleanText(n.slot) ?? "slot not reported",
    sizeBytes: isEmpty(n) ? 0 : (plausibleBytes(n.size) ?? 0),
    kind: /\b(DDR\d\w*|LPDDR\d\w*)\b/.exec(n.description ?? "")?.[1] ?? null,
    part: cleanText(n.product),
    megatransfers: n.clock ? Math.round(n.clock / 1e6) : null,
  }));
  return { memory: { installedBytes: modules.reduce((sum, m) => sum + m.sizeBytes, 0), modules } };
}

/** A drive carries a bus place that ends in a device and a serial of its own; media inside readers and volumes do not. */
function isDrive(node: Node): boolean {
  if (!["disk", "volume"].includes(node.class) || !/^(scsi|nvme|ide|virtio)@/.test(node.businfo ?? ""))
    return false;
  return !/,\d+$/.test(node.businfo ?? "") && nameOf(node) !== "" && (node.size ?? 0) > 0;
}

function toDrive(node: Node, carrier: Node | undefined): Partial<Drive> {
  const name = nameOf(node);
  const config = node.configuration ?? {};
  return {
    // On a drive with a file system on its bare surface, lshw shows that file system's serial and version instead.
    serial: node.class === "disk" && node.product ? cleanText(node.serial) : null,
    model: cleanText(node.product),
    maker: node.businfo?.startsWith("virtio@") ? cleanText(carrier?.vendor) : undefined,
    controller: carrier ? pciOf(carrier) : null,
    driver: cleanText(String(config.driver ?? "")),
    sizeBytes: plausibleBytes(node.size) ?? undefined,
    logicalSectorBytes: plausibleBytes(config.logicalsectorsize),
    physicalSectorBytes: plausibleBytes(config.sectorsize),
    media: name.startsWith("nvme") ? "nvme" : undefined,
    seenAs: name,
  };
}

function toPort(node: Node, place: string | null): Partial<Port> & Pick<Port, "mac"> {
  const config = node.configuration ?? {};
  const megabits = (bits: number | undefined): number | null => (bits ? Math.round(bits / 1e6) : null);
  return {
    mac: (node.serial ?? "").toLowerCase(),
    seenAs: nameOf(node),
    kind: /wireless/i.test(`${node.description} ${String(config.wireless ?? "")}`) ? "wireless" : "ethernet",
    link: config.link === "yes" ? "up" : config.link === "no" ? "down" : "unknown",
    speedMegabits: megabits(node.size),
    maxMegabits: megabits(node.capacity),
    driver: cleanText(String(config.driver ?? "")),
    pci: place,
  };
}
