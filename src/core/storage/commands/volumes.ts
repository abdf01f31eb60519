import type { PlannedSet, PlannedVolume } from "../sets";
import { quoted } from "./quote";

const EXTENT = 4 * 2 ** 20;
/** The thin pool of a group, from which its volumes take what they write. */
const THIN = "thin";

/** What stands in a new pool: file systems, and volumes of so many bytes in blocks of their own size. */
export function inPool(set: PlannedSet): string[] {
  return set.volumes.map(({ name, bytes, blockKib }) => {
    const full = quoted(`${set.name}/${name}`);
    if (bytes === null) return `zfs create ${full}`;
    const block = blockKib * 2 ** 10;
    const sparse = set.provision === "thin" ? " -s" : "";
    return `zfs create${sparse} -b ${block} -V ${Math.ceil(bytes / block) * block} ${full}`;
  });
}

/** In whole extents, those with a size first: the one that takes the rest finds it then. */
const inOrder = (volumes: readonly PlannedVolume[]): PlannedVolume[] => [
  ...volumes.filter((v) => v.bytes !== null),
  ...volumes.filter((v) => v.bytes === null),
];

const extents = (bytes: number): number => Math.ceil(bytes / EXTENT);

function volume({ name, provision }: PlannedSet, v: PlannedVolume): string {
  const own = quoted(v.name);
  const group = quoted(name);
  if (provision === "thin") {
    const size =
      v.bytes === null
        ? `"$(lvs --noheadings --units b --nosuffix -o lv_size ${quoted(`${name}/${THIN}`)} | tr -d ' ')b"`
        : `${extents(v.bytes) * EXTENT}b`;
    return `lvcreate --yes --thin --name ${own} --virtualsize ${size} ${quoted(`${name}/${THIN}`)}`;
  }
  return `lvcreate --yes --name ${own} --extents ${v.bytes === null ? "100%FREE" : extents(v.bytes)} ${group}`;
}

/** A volume group over an array, its logical volumes, and their file systems. */
export function onArray(set: PlannedSet, device: string): string[] {
  if (set.volumes.length === 0) return [];
  const group = quoted(set.name);
  return [
    `pvcreate --yes ${device}`,
    `vgcreate ${group} ${device}`,
    ...(set.provision === "thin"
      ? [`lvcreate --yes --type thin-pool --name ${THIN} --extents 100%FREE ${group}`]
      : []),
    ...inOrder(set.volumes).map((v) => volume(set, v)),
    ...set.volumes
      .filter((v) => v.fs !== "none")
      .map((v) => `mkfs.${v.fs} ${quoted(`/dev/${set.name}/${v.name}`)}`),
    `lvs ${group}`,
  ];
}

/** The programs that the volumes of an array ask for. */
export const volumePrograms = ({ volumes }: PlannedSet): string[] =>
  volumes.length === 0
    ? []
    : [
        ...["pvcreate", "vgcreate", "vgs", "lvcreate", "lvs"],
        ...[...new Set(volumes.map((v) => v.fs))].filter((fs) => fs !== "none").map((fs) => `mkfs.${fs}`),
      ];
