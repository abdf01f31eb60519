import { imageSchema, type Profile } from "../image";
import { emptyMachine, factsSchema } from "../machine";
import { usualAccounts } from "../answers";
import { siteSchema } from "../site";
import type { Operation } from "../work";
import { derive, type Sources } from "./plan";
import { emptySheet, type Sheet } from "./sheet";
import { deriveSteps } from "./steps";

const GIB = 1024 ** 3;

/** A plain machine with one drive and one cabled port, which asks for nothing in particular. */
const EXAMPLE_FACTS = factsSchema.parse({
  firmware: { mode: "uefi" },
  processors: { architecture: "x86_64", cores: 8 },
  memory: { recognisedBytes: 32 * GIB },
  controller: { present: true, virtualMedia: "licensed" },
  drives: [
    {
      ...{ id: "EX-0001", serial: "EX-0001", model: "Example 480", sizeBytes: 480_103_981_056 },
      ...{ media: "flash", seenAs: "sda", contents: [] },
    },
  ],
  ports: [{ mac: "02:00:00:00:00:01", seenAs: "eno1", kind: "ethernet", link: "up" }],
});

const EXAMPLE_SITE = siteSchema.parse({
  ...{ schemaVersion: 2, name: "example", domain: "example.internal" },
  segments: [{ id: "lan", name: "LAN", purpose: "management", prefix: "192.0.2.0/24", gateway: "192.0.2.1" }],
});

function exampleSheet(profile: Profile): Sheet {
  const sheet = emptySheet();
  const [mode = "uefi"] = profile.firmware.modes;
  return {
    ...sheet,
    ...{
      machine: { id: "example" },
      image: { ...sheet.image, id: "example" },
      boot: { ...sheet.boot, mode },
    },
    storage: { ...sheet.storage, target: "EX-0001" },
    network: {
      ...{ ...sheet.network, port: "02:00:00:00:00:01", segment: "lan", address: "192.0.2.10" },
      ...{ gateway: "192.0.2.1", nameServers: ["192.0.2.2"] },
    },
    answers: {
      ...{ ...sheet.answers, hostName: "example", domain: "example.internal", keyboard: "gb" },
      ...{
        locale: "en_GB.UTF-8",
        timeZone: "UTC",
        edition: profile.editions[0]?.name ?? "",
        secretsKept: "safe",
        accounts: usualAccounts(profile, ""),
      },
    },
  };
}

/** The steps that a profile makes for a plain machine: what a sheet of it would hold. Addresses are those of RFC 5737. */
export function exampleSteps(profile: Profile, now: string): Operation[] {
  const image = imageSchema.parse({
    ...{ schemaVersion: 1, name: `${profile.name} ${profile.version}`, sizeBytes: GIB },
    ...{ profile: profile.profile, version: profile.version, bootModes: profile.firmware.modes },
    architecture: profile.requirements.architectures[0] ?? "x86_64",
  });
  const sources: Sources = {
    ...{ now, sheet: exampleSheet(profile), site: EXAMPLE_SITE, image, profile },
    machine: { id: "example", name: "example", document: { ...emptyMachine(), facts: EXAMPLE_FACTS } },
    ...{
      rivals: [],
      secrets: [],
      pasts: [],
      circuit: null,
      compat: [],
      profiles: [profile],
      shelf: [],
      sticks: [],
    },
    ...{ samples: [], times: [], edition: null },
  } as Sources;
  return deriveSteps(derive(sources));
}
