// The images of the demo: what was published about each, what was computed and what was found inside.
import { imageSchema, type Image, type Inspection } from "@/core/image";
import { ARKLE, at, DAY, PELL } from "./parts";

const digest = (seed: string): string =>
  Array.from(
    { length: 64 },
    (_, i) => "0123456789abcdef"[(seed.charCodeAt(i % seed.length) * (i + 3)) % 16],
  ).join("");

/** What the inspector would say of the made-up Cairn image: a hybrid for both firmwares, with one EFI image. */
const cairnInside: Inspection = {
  sizeBytes: 642_777_088,
  kind: "ISO 9660 image, also for USB sticks (hybrid)",
  volumeId: "CAIRN_9_0_OSTLER",
  made: "CAIRN IMAGE BUILDER",
  udf: false,
  joliet: "CAIRN_9_0_OSTLER",
  faults: [],
  verdict: {
    optical: {
      legacy: { answer: "boots", reason: "El Torito entry for legacy BIOS, without emulation" },
      x64: { answer: "boots", reason: "El Torito entry for UEFI with a loader for this architecture" },
      ia32: { answer: "does not", reason: "its loader is for x64 only" },
      aa64: { answer: "does not", reason: "its loader is for x64 only" },
    },
    stick: {
      legacy: { answer: "boots", reason: "boot code in the first sector" },
      x64: { answer: "boots", reason: "a FAT partition with a loader for this architecture" },
      ia32: { answer: "does not", reason: "its loader is for x64 only" },
      aa64: { answer: "does not", reason: "its loader is for x64 only" },
    },
  },
  loaders: [
    { path: "EFI/BOOT/BOOTX64.EFI", arch: "x64", where: "boot image", signed: true, signer: "Cairn Works" },
  ],
  regions: [
    { name: "boot sector with code", kind: "boot", offset: 0, length: 512 },
    { name: "volume descriptors", kind: "description", offset: 32_768, length: 8192 },
    { name: "files", kind: "files", offset: 40_960, length: 642_736_128 },
    { name: "boot catalog", kind: "table", offset: 67_584, length: 2048 },
    { name: "boot image for UEFI", kind: "boot", offset: 69_632, length: 33_554_432 },
    { name: "partition 2 (EFI system)", kind: "partition", offset: 69_632, length: 33_554_432 },
    { name: "boot image for legacy BIOS", kind: "boot", offset: 33_624_064, length: 2048 },
  ],
  bytesRead: 174_080,
};

const image = (id: string, document: Partial<Image>) => ({
  id,
  document: imageSchema.parse({
    schemaVersion: 1,
    architecture: "x86_64",
    bootModes: ["uefi", "legacy"],
    ...document,
  }),
});
const sum = (seed: string) => ({ algorithm: "sha256" as const, value: digest(seed) });
export const images = [
  image("i-cairn-9", {
    name: "Cairn Hypervisor 9.0, Ostler build",
    profile: "cairn-hypervisor",
    version: "9.0",
    variant: "maker's custom",
    fileName: "cairn-hypervisor-9.0-ostler.iso",
    sizeBytes: 642_777_088,
    loaderSigned: "signed",
    published: sum("cairn-nine"),
    publishedFrom: "Ostler's download page, 18 Nov",
    computed: { checksum: sum("cairn-nine"), at: at(4 * DAY), by: ARKLE },
    inside: { found: cairnInside, fileName: "cairn-hypervisor-9.0-ostler.iso", at: at(4 * DAY), by: ARKLE },
    supportEnds: "2029-10-31",
  }),
  image("i-cairn-67", {
    name: "Cairn Hypervisor 6.7",
    profile: "cairn-hypervisor",
    version: "6.7",
    variant: "full",
    fileName: "cairn-hypervisor-6.7.iso",
    sizeBytes: 398_458_880,
    loaderSigned: "unsigned",
    published: sum("cairn-six"),
    publishedFrom: "envelope 14, printed list of 2023",
    computed: { checksum: sum("cairn-six"), at: at(4 * DAY), by: ARKLE },
    inside: {
      found: {
        ...cairnInside,
        sizeBytes: 398_458_880,
        volumeId: "CAIRN_6_7",
        joliet: null,
        regions: cairnInside.regions.map((r) => (r.name === "files" ? { ...r, length: 398_417_920 } : r)),
      },
      fileName: "cairn-hypervisor-6.7.iso",
      at: at(4 * DAY),
      by: ARKLE,
    },
    notes: "For the boot cards of the R114: version 9 cannot be installed fresh on them.",
  }),
  image("i-cistern-13", {
    name: "Cistern NAS 13.0, update file",
    profile: "cistern-nas",
    version: "13.0",
    fileName: "cistern-nas-13.0-update.tar",
    sizeBytes: 1_610_612_736,
    bootModes: ["uefi"],
    loaderSigned: "unsigned",
    published: sum("cistern"),
    publishedFrom: "vendor's release page, 11 Nov",
    computed: { checksum: sum("cistern"), at: at(6 * DAY), by: ARKLE },
  }),
  image("i-hopper-3", {
    name: "Hopper Backup 3.2",
    profile: "hopper-backup",
    version: "3.2",
    fileName: "hopper-backup-3.2-amd64.iso",
    sizeBytes: 1_181_116_006,
    bootModes: ["uefi", "legacy"],
    loaderSigned: "unsigned",
    published: sum("hopper"),
    publishedFrom: "vendor's release page, 2 Oct",
    computed: { checksum: sum("hopper"), at: at(33 * DAY), by: PELL },
  }),
  image("i-cairn-guests", {
    name: "Guest drivers for Cairn 9",
    profile: "cairn-hypervisor",
    version: "9.0",
    purpose: "guest drivers",
    goesWith: ["i-cairn-9"],
    fileName: "cairn-guest-drivers-9.0.iso",
    sizeBytes: 214_958_080,
    bootModes: ["uefi"],
    published: sum("guests"),
    publishedFrom: "Cairn's download page, 18 Nov",
  }),
  image("i-works-recovery", {
    name: "Recovery disc of the Works",
    profile: "lowland-server",
    version: "7.3",
    purpose: "recovery",
    goesWith: ["i-lowland-7"],
    variant: "boot only",
    fileName: "works-recovery-2025.iso",
    sizeBytes: 904_921_088,
    loaderSigned: "signed",
    published: { algorithm: "md5", value: digest("recovery").slice(0, 32) },
    publishedFrom: "the label of the disc",
    supportEnds: "2026-06-30",
  }),
  image("i-lowland-7", {
    name: "Lowland Server 7.4",
    profile: "lowland-server",
    version: "7.4",
    fileName: "lowland-server-7.4-x86_64.iso",
    sizeBytes: 2_147_483_648,
    loaderSigned: "signed",
    published: sum("lowland"),
    publishedFrom: "the project's mirror list, 2 Nov",
    supportEnds: "2031-05-31",
  }),
];
