import { z } from "zod";
import { fail, ok, type Result } from "../../../result";
import { own } from "../../../text";
import type { Drive } from "../../facts/drive";
import type { ObservedContent, ObservedDrive } from "../../facts/identity";
import { cleanText, parseShaped, plausibleBytes, wholeNumber, type Importer, type Reading } from "./importer";

const nodeSchema = z.object({
  name: z.string(),
  type: z.string(),
  size: z.union([z.number(), z.string()]).nullable(),
  model: z.string().nullish(),
  vendor: z.string().nullish(),
  serial: z.string().nullish(),
  wwn: z.string().nullish(),
  tran: z.string().nullish(),
  zoned: z.string().nullish(),
  rota: z.union([z.boolean(), z.string()]).nullish(),
  rev: z.string().nullish(),
  rm: z.union([z.boolean(), z.string()]).nullish(),
  fstype: z.string().nullish(),
  label: z.string().nullish(),
  pttype: z.string().nullish(),
  partuuid: z.string().nullish(),
  subsystems: z.string().nullish(),
  mountpoints: z.array(z.string().nullable()).nullish(),
  mountpoint: z.string().nullish(),
  "log-sec": z.union([z.number(), z.string()]).nullish(),
  "phy-sec": z.union([z.number(), z.string()]).nullish(),
  get children() {
    return z.array(nodeSchema).optional();
  },
});
type Node = z.infer<typeof nodeSchema>;
const documentSchema = z.object({ blockdevices: z.array(nodeSchema) });

/** Kernel devices that are no hardware; used where the `subsystems` column is absent (`lsblk -J` without `-O`). */
const NOT_HARDWARE = /^(loop|ram|zram|zd|dm-|md|sr|nbd|fd)\d/;

/** `lsblk -J -b -O` (also `lsblk -J -b` with fewer columns): drives with everything that stands on them. */
export const lsblk: Importer = {
  tool: "lsblk",
  command: "lsblk -J -b -O",
  recognises: (text) => /^\s*\{\s*"blockdevices"\s*:/.test(text),
  parse(text): Result<Reading> {
    const parsed = parseShaped(text, documentSchema, "lsblk");
    if (!parsed.ok) return parsed;
    const nodes = parsed.value.blockdevices;
    const inexact = nodes.find((n) => typeof n.size === "string" && !/^\d+$/.test(n.size));
    if (inexact)
      return fail({
        message: `lsblk printed rounded sizes ("${inexact.size}" for ${inexact.name}); run lsblk -J -b -O, which prints sizes in bytes, and serial numbers`,
      });
    const unlikely = nodes.filter((n) => isDrive(n) && plausibleBytes(n.size) === null);
    const hardware = nodes.filter(isDrive);
    // Without these columns a listing cannot tell which drives it shows, and so none that it does not show.
    const isNamed = hardware.some((n) => n.serial !== undefined || n.wwn !== undefined);
    // Partitions, and no table and no file system anywhere: lsblk had neither the right nor a service to look.
    const all = nodes.flatMap(below);
    const isAsked = hardware.some((n) => n.fstype !== undefined);
    const isBlind = isAsked && all.some((n) => n.type === "part") && !all.some((n) => n.fstype || n.pttype);
    const hasSignatures = isAsked && !isBlind;
    const drives = joinPaths(hardware.map((n) => toDrive(n, hasSignatures)));
    const ids = new Set<string>();
    const twice = drives.filter((d) => ids.size === ids.add(d.id).size);
    for (const drive of twice) drive.id = `${drive.id}@${drive.seenAs}`;
    return ok(
      {
        facts: { drives },
        understood: `${drives.length} ${drives.length === 1 ? "drive" : "drives"}, ${drives.filter((d) => (d.contents ?? []).length > 0).length} with contents${isNamed ? "" : "; no serial numbers and WWNs (lsblk -J -b -O prints them)"}`,
        ignored: [
          ...(isBlind ? ["contents of the partitions: lsblk had no access; run it as root"] : []),
          ...nodes.filter((n) => !isDrive(n)).map((n) => `${n.name}: ${whyNot(n)}`),
        ],
        ...(isNamed && { complete: { drives: true } }),
      },
      [
        ...twice.map((d) => ({
          message: `two drives report the serial number ${d.serial}; they are distinguished by their device names`,
        })),
        ...unlikely.map((n) => ({
          message: `${n.name} reports a size of ${n.size} bytes, which is impossible; its size is unknown`,
        })),
      ],
    );
  },
};

const isDrive = (node: Node): boolean => whyNot(node) === "";

function whyNot(node: Node): string {
  if (node.type !== "disk") return `a ${node.type} device, not a drive`;
  if (Number(node.size) === 0) return "empty: size 0";
  const virtual = node.subsystems ? node.subsystems.trim() === "block" : NOT_HARDWARE.test(node.name);
  return virtual ? "created by the kernel, without hardware" : "";
}

function mediaOf(node: Node): Drive["media"] | undefined {
  const tran = node.tran?.toLowerCase() ?? "";
  const rotates = node.rota === true || node.rota === "1";
  if (node.name.startsWith("nvme") || tran === "nvme") return "nvme";
  if (node.name.startsWith("mmcblk")) return "card";
  if (tran === "usb" || node.subsystems?.includes(":usb")) return "usb";
  if (/^(vd|xvd)/.test(node.name)) return "virtual";
  if (node.rota === undefined || node.rota === null) return undefined;
  return rotates ? "spinning" : "flash";
}

function toDrive(
  node: Node,
  hasSignatures: boolean,
): ObservedDrive & Pick<Drive, "id" | "seenAs" | "serial"> {
  const serial = cleanText(node.serial);
  const wwn = cleanText(node.wwn);
  return {
    id: serial ?? wwn ?? `?${node.name}`,
    serial,
    wwn,
    model: cleanText(node.model),
    // A virtual drive shows the number of its bus there, which is no name.
    maker: /^0x[0-9a-f]{4}$/i.test(node.vendor ?? "") ? null : cleanText(node.vendor),
    firmware: cleanText(node.rev),
    sizeBytes: plausibleBytes(node.size) ?? undefined,
    logicalSectorBytes: wholeNumber(node["log-sec"]),
    physicalSectorBytes: wholeNumber(node["phy-sec"]),
    media: mediaOf(node),
    removable: node.rm === undefined || node.rm === null ? undefined : node.rm === true || node.rm === "1",
    shingled: node.zoned === "host-aware" || node.zoned === "host-managed" ? node.zoned : null,
    san: own(SAN, node.tran?.toLowerCase() ?? "") ?? null,
    seenAs: node.name,
    table: cleanText(node.pttype),
    contents: contentsOf(node, hasSignatures),
    memberOf: hasSignatures ? membershipsOf(node) : undefined,
  };
}

const SAN: Readonly<Record<string, Drive["san"]>> = {
  iscsi: "iSCSI",
  fc: "Fibre Channel",
  fcoe: "Fibre Channel",
};

/** A volume of a storage network appears once for each path to it: one drive, with the number of its paths. */
function joinPaths<D extends ReturnType<typeof toDrive>>(drives: readonly D[]): D[] {
  const paths = new Map<string, number>();
  const volume = (d: D): string => `${d.sizeBytes} ${d.id}`;
  const first = drives.filter((d) => {
    if (d.san) paths.set(volume(d), (paths.get(volume(d)) ?? 0) + 1);
    return !d.san || paths.get(volume(d)) === 1;
  });
  return first.map((d) => (d.san ? { ...d, sanPaths: paths.get(volume(d)) } : d));
}

const mountsOf = (node: Node): string[] =>
  [...(node.mountpoints ?? []), node.mountpoint].filter(
    (m): m is string => typeof m === "string" && m !== "",
  );

/**
 * The drive itself when a file system stands on the bare drive, and each partition; children below are membership.
 * Without the column of signatures a drive without partitions may hold anything: null then.
 */
function contentsOf(drive: Node, hasSignatures: boolean): ObservedContent[] | null {
  if (!hasSignatures && mountsOf(drive).length === 0 && (drive.children ?? []).length === 0) return null;
  const parts = [drive, ...(drive.children ?? [])].filter(
    (node) => node.type === "part" || node.fstype || mountsOf(node).length > 0,
  );
  return parts.map((node) => ({
    part: node.name,
    sizeBytes: plausibleBytes(node.size) ?? 0,
    kind: hasSignatures ? (cleanText(node.fstype) ?? kindOfUnsigned(node)) : undefined,
    label: hasSignatures && node.label !== undefined ? cleanText(node.label) : undefined,
    mountedAt: hasMounts(node) ? [...new Set(below(node).flatMap(mountsOf))] : undefined,
    partUuid: cleanText(node.partuuid) ?? undefined,
  }));
}

const kindOfUnsigned = (node: Node): string => (mountsOf(node).length > 0 ? "mounted" : "unknown content");
const hasMounts = (node: Node): boolean => node.mountpoints !== undefined || node.mountpoint !== undefined;

const below = (node: Node): Node[] => [node, ...(node.children ?? []).flatMap(below)];

const MEMBERS: Record<string, string> = {
  linux_raid_member: "array",
  lvm2_member: "volume group",
  zfs_member: "pool",
  ddf_raid_member: "array",
  isw_raid_member: "array",
  bcache: "cache set",
};

/** "array md0", "volume group vg0", "pool tank": named by the device on top, or by the label on the member. */
function membershipsOf(drive: Node): string[] {
  const found = below(drive).flatMap((node) => {
    const kind = own(MEMBERS, (node.fstype ?? "").toLowerCase());
    if (!kind) return [];
    const onTop = node.children?.[0]?.name;
    const name =
      kind === "array" ? (onTop ?? node.label) : kind === "volume group" ? onTop?.split("-")[0] : node.label;
    return [`${kind} ${cleanText(name) ?? "(unnamed)"}`];
  });
  return [...new Set(found)];
}
