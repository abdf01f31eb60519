import { readFileSync } from "node:fs";
import { ARMED } from "./boot-image";

const GIB = 2 ** 30;

/** A drive of each kind that udev tells of in a way of its own, and what an emulated PC has it as. */
export const KINDS = {
  nvme: { serial: "RLN0001", media: "nvme", devices: ["nvme,drive=nvme,serial={serial}"] },
  sata: { serial: "RLA0002", media: "flash", devices: ["ide-hd,drive=sata,bus=ide.0,serial={serial}"] },
  scsi: {
    ...{ serial: "RLS0003", media: "spinning" },
    devices: ["lsi53c895a,id=lsi", "scsi-hd,drive=scsi,bus=lsi.0,serial={serial}"],
  },
  sas: {
    ...{ serial: "RLW0004", media: "spinning" },
    devices: ["mptsas1068,id=mpt", "scsi-hd,drive=sas,bus=mpt.0,serial={serial},wwn=0x5000c50012345678"],
  },
  virtio: { serial: "RLV0005", media: "flash", devices: ["virtio-blk-pci,drive=virtio,serial={serial}"] },
  usb: { serial: "RLU0006", media: "usb", devices: ["qemu-xhci", "usb-storage,drive=usb,serial={serial}"] },
} as const;
export type Kind = keyof typeof KINDS;
export const KIND_NAMES = Object.keys(KINDS) as Kind[];

/** The planned drive is large enough for a system; each of the others holds a file system that nobody may touch. */
export const bytesOf = (kind: Kind, target: Kind): number => (kind === target ? 8 * GIB : 64 * 2 ** 20);

export const IMAGE = { name: "millrace-12-x86_64.iso", bytes: 2 ** 28 };

/** Words for the test alone: a text dialogue on a serial console, and an archive whose index this test has written. */
const WORDS = [
  ...["console=ttyS0", "DEBIAN_FRONTEND=text", "anna/no_kernel_modules=true"],
  "debian-installer/allow_unauthenticated=true",
];

interface Demo {
  machines: { id: string; document: { facts: Record<string, unknown> } }[];
  images: { id: string; document: object }[];
  builds: { id: string; history: unknown[]; sheet: Record<string, Record<string, unknown>> }[];
  sites: { id: string; document: { segments: { nameServers: string[] }[] } }[];
  profiles: { key: string; yaml: string }[];
}

/** The demo with its armed machine as an emulated PC in legacy mode: a fixed address, and a system with a preseed answer file. */
export function realDemo(
  target: Kind,
  drives: readonly Kind[],
  archive: string,
  nameServer: string,
  own: readonly string[] = [],
): string {
  const demo = JSON.parse(readFileSync("demo/marrowby-water.json", "utf8")) as Demo;
  const one = <T extends { id: string }>(all: T[], id: string): T => all.find((a) => a.id === id)!;
  const { facts } = one(demo.machines, "m-tho-a").document;
  facts.firmware = { ...(facts.firmware as object), mode: "legacy", order: [], entries: [] };
  facts.drives = drives.map((kind) => {
    const { serial, media } = KINDS[kind];
    return {
      ...{ id: serial, serial, wwn: null, model: `Alder ${kind}`, sizeBytes: bytesOf(kind, target), media },
      ...{ seenAs: kind, contents: [] },
    };
  });
  const image = { name: "Millrace 12", profile: "millrace", version: "12" };
  Object.assign(one(demo.images, "i-lowland-7").document, image, {
    ...{ fileName: IMAGE.name, sizeBytes: IMAGE.bytes },
  });
  const { sheet } = Object.assign(one(demo.builds, ARMED.build), { history: [] });
  Object.assign(sheet.boot!, { mode: "legacy", secureBoot: "off" });
  sheet.storage!.target = KINDS[target].serial;
  Object.assign(sheet.network!, { school: "fixed", nameServers: [nameServer] });
  sheet.answers!.source = archive;
  one(demo.sites, ARMED.site).document.segments[0]!.nameServers = [nameServer];
  const profile = demo.profiles.find(({ key }) => key === "millrace")!;
  profile.yaml = profile.yaml.replace(
    "initrd.gz] }",
    `initrd.gz], words: [${[...WORDS, ...own].join(", ")}] }`,
  );
  return JSON.stringify(demo);
}
