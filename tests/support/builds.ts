import { readFileSync } from "node:fs";
import { addressClaim, macClaim, nameClaim, serialClaim, type Rival } from "@/core/claims";
import { valueAt } from "@/core/document";
import { applyEdits, derive, emptySheet, sheetSchema, type Plan, type Sheet } from "@/core/sheet";
import { imageSchema, parseProfileYaml, type Image, type Inspection, type Profile } from "@/core/image";
import { driveSchema, machineDocumentSchema, type Drive, type Facts } from "@/core/machine";
import { siteSchema, type Site } from "@/core/site";

export const NOW = "2026-11-20T08:00:00.000Z";
export const MAC = "02:61:0a:00:00:14";

export function shippedProfile(file: string): Profile {
  const read = parseProfileYaml(readFileSync(`profiles/${file}.yaml`, "utf8"));
  if (!read.ok) throw new Error(JSON.stringify(read.problems));
  return read.value;
}

export const aDrive = (id: string, changes: Partial<Drive>): Drive =>
  driveSchema.parse({
    id,
    serial: id,
    wwn: `naa.${id}`,
    model: "Alder 480",
    sizeBytes: 480_103_981_056,
    media: "nvme",
    seenAs: "nvme0n1",
    contents: [],
    ...changes,
  });

export const aSite = siteSchema.parse({
  schemaVersion: 2,
  name: "Works",
  timeZone: "Europe/London",
  domain: "marrowby.example",
  naming: [{ role: null, pattern: "wrk-hv#" }],
  segments: [
    {
      id: "mgmt",
      name: "Works management",
      purpose: "management",
      prefix: "10.61.10.0/24",
      gateway: "10.61.10.1",
      nameServers: ["10.61.10.2"],
      dhcp: [{ from: "10.61.10.100", to: "10.61.10.199" }],
    },
  ],
  devices: [{ id: "printer", name: "the printer", kind: "printer", address: "10.61.10.9" }],
  link: { bitsPerSecond: 20e6, roundTripSeconds: 0.04 },
});

/** What the inspector would say of a sound hybrid image; `changes` replaces parts of it. */
export function soundInside(changes: Partial<Inspection> = {}): Inspection {
  const boots = { answer: "boots" as const, reason: "as it should" };
  const not = { answer: "does not" as const, reason: "its loader is for x64 only" };
  const row = { legacy: boots, x64: boots, ia32: not, aa64: not };
  return {
    sizeBytes: 731_906_048,
    kind: "ISO 9660 image, also for USB sticks (hybrid)",
    volumeId: "CAIRN_9",
    made: "",
    udf: false,
    joliet: null,
    faults: [],
    verdict: { optical: row, stick: row },
    loaders: [
      { path: "EFI/BOOT/BOOTX64.EFI", arch: "x64", where: "boot image", signed: true, signer: "Cairn Works" },
    ],
    regions: [{ name: "files", kind: "files", offset: 0, length: 731_906_048 }],
    bytesRead: 120_000,
    ...changes,
  };
}

/** Another machine with what it holds; at the same site unless it says otherwise. */
interface Neighbour {
  name: string;
  serial?: string;
  macs?: string[];
  hostNames?: string[];
  addresses?: string[];
  here?: boolean;
}

const rivalsOf = ({ name, serial, macs, hostNames, addresses, here = true }: Neighbour): Rival[] =>
  [
    ...serialClaim(serial),
    ...(macs ?? []).map(macClaim),
    ...(hostNames ?? []).flatMap(nameClaim),
    ...(addresses ?? []).flatMap(addressClaim),
  ].map((claim) => ({ ...claim, owner: name, here }));

export interface BuildChanges {
  now?: string;
  site?: Partial<Site>;
  sheet?: Record<string, unknown>;
  machine?: null;
  facts?: Partial<Facts>;
  drives?: Drive[];
  portKind?: "wireless";
  portLink?: "down";
  wirelessToo?: boolean;
  image?: Partial<Image> | null;
  profile?: Partial<Profile> | null;
  neighbours?: Neighbour[];
  /** Changes of the machine's document beside its facts. */
  document?: object;
  pasts?: Plan["pasts"];
  secrets?: Plan["secrets"];
  circuit?: Plan["circuit"];
  compat?: Plan["compat"];
  profiles?: Plan["profiles"];
  shelf?: Plan["shelf"];
  sticks?: Plan["sticks"];
  samples?: Plan["samples"];
  times?: Plan["times"];
  edition?: Plan["edition"];
}

const SOUND_SHEET: Record<string, unknown> = {
  subject: "Install Cairn 9 on wrk-hv1",
  "machine.id": "m1",
  "image.id": "i1",
  "image.stick.sizeBytes": 8e9,
  "storage.target": "NV-0001",
  "network.port": MAC,
  "network.segment": "mgmt",
  "network.address": "10.61.10.20",
  "network.gateway": "10.61.10.1",
  "network.nameServers": ["10.61.10.2"],
  "answers.hostName": "wrk-hv1",
  "answers.domain": "marrowby.example",
  "answers.keyboard": "gb",
  "answers.locale": "en_GB.UTF-8",
  "answers.timeZone": "Europe/London",
  "answers.accounts": [{ name: "root", role: "super-user", logIn: "password" }],
  "answers.secretsKept": "safe, envelope 14",
  "handOver.licence": "licensed",
  "handOver.owner": "Control room",
};

/** The sheet with values at paths, past the door that refuses what is not seen. */
function forced(sheet: Sheet, values: readonly (readonly [string, unknown])[]): Sheet {
  const whole = structuredClone(sheet) as unknown as Record<string, unknown>;
  for (const [path, value] of values) {
    const keys = path.split(".");
    const last = keys.pop()!;
    const holder = keys.reduce((at, key) => at[key] as Record<string, unknown>, whole);
    holder[last] = value;
  }
  return sheetSchema.parse(whole);
}

/** A build about which no rule has anything to say, with the given changes. */
export function aBuild(changes: BuildChanges = {}): Plan {
  const empty = emptySheet();
  const edits = Object.entries({ ...SOUND_SHEET, ...changes.sheet });
  const sheet = applyEdits(
    empty,
    edits.map(([path, after]) => ({ path, before: valueAt(empty, path), after })),
  );
  // What no sheet may hold is tried on the writers all the same.
  const isUnseen = !sheet.ok && sheet.problems.every((p) => /invisible|one line/.test(p.message));
  if (!sheet.ok && !isUnseen) throw new Error(JSON.stringify(sheet.problems));
  const whole = sheet.ok ? sheet.value : forced(empty, edits);
  const sum = { algorithm: "sha256" as const, value: "a".repeat(64) };
  const port = {
    mac: MAC,
    seenAs: changes.portKind ? "wlan0" : "eno1",
    kind: changes.portKind ?? "ethernet",
    link: changes.portLink ?? "up",
  };
  const wireless = { mac: "02:61:0a:00:00:99", seenAs: "wlan0", kind: "wireless", link: "up" };
  const document = machineDocumentSchema.parse({
    schemaVersion: 2,
    facts: {
      chassis: { maker: "Ostler", model: "R114", serial: "OST-1" },
      firmware: { mode: "uefi", order: [], entries: [] },
      processors: { cores: 8, architecture: "x86_64", virtualisation: true },
      memory: { installedBytes: 64 * 2 ** 30, recognisedBytes: 63 * 2 ** 30 },
      controller: { present: true, virtualMedia: "licensed" },
      drives: changes.drives ?? [aDrive("NV-0001", {})],
      ports: changes.wirelessToo ? [port, wireless] : [port],
      ...changes.facts,
    },
    sources: { "chassis.serial": { tool: "dmidecode", from: "bundle.txt", at: NOW } },
    ...changes.document,
  });
  const profile = { ...shippedProfile("cairn-hypervisor-9"), ...changes.profile };
  return derive({
    now: changes.now ?? NOW,
    sheet: whole,
    machine: changes.machine === null ? null : { name: "wrk-hv1", document },
    site: { ...aSite, ...changes.site },
    image:
      changes.image === null
        ? null
        : imageSchema.parse({
            schemaVersion: 1,
            name: "Cairn 9.0",
            profile: "cairn-hypervisor",
            version: "9.0",
            architecture: "x86_64",
            fileName: "cairn-9.iso",
            sizeBytes: 731_906_048,
            bootModes: ["uefi", "legacy"],
            loaderSigned: "signed",
            published: sum,
            computed: { checksum: sum, at: NOW, by: "J. Pell" },
            inside: { found: soundInside(), fileName: "cairn-9.iso", at: NOW, by: "J. Pell" },
            ...changes.image,
          }),
    profile: changes.profile === null ? null : profile,
    pasts: changes.pasts ?? [],
    secrets: changes.secrets ?? [],
    circuit: changes.circuit ?? null,
    compat: changes.compat ?? [],
    profiles: changes.profiles ?? (changes.profile === null ? [] : [profile]),
    shelf: changes.shelf ?? [],
    sticks: changes.sticks ?? [],
    samples: changes.samples ?? [],
    times: changes.times ?? [],
    edition: changes.edition ?? null,
    rivals: (changes.neighbours ?? []).flatMap(rivalsOf),
  });
}
