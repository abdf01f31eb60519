import { describe, expect, it } from "vitest";
import { degradedCards, syncing } from "../../../tests/support/boot-cards";
import {
  aBuild,
  aDrive,
  MAC,
  shippedProfile,
  soundInside,
  type BuildChanges,
} from "../../../tests/support/builds";
import { ANSWERS_FIRING, ANSWERS_SILENT } from "../../../tests/support/firing-answers";
import { NETWORK_FIRING } from "../../../tests/support/firing-network";
import { PHRASE_FIRING } from "../../../tests/support/firing-phrases";
import { ROAD_FIRING } from "../../../tests/support/firing-roads";
import { bulks, PLAN_FIRING, SET_FIRING, withSet } from "../../../tests/support/firing-sets";
import { valueAt } from "../document";
import { runChecks, type Message } from "../finding";
import { MACHINE_CHECKS, MACHINE_MESSAGES, portSchema, type Drive } from "../machine";
import { compatNoteSchema } from "../compat";
import { consentTo, consentViews } from "../storage";
import { SHEET_CHECKS, SHEET_MESSAGES } from "./checks";
import { CURED, cureOf } from "./cures";
import { applyEdits } from "./edits";
import { evaluateSheet } from "./evaluate";
import { derive, type Plan } from "./plan";

const found = (changes: BuildChanges) => runChecks(SHEET_CHECKS, SHEET_MESSAGES, aBuild(changes));
const sum = (c: string) => ({ algorithm: "sha256" as const, value: c.repeat(64) });
const computed = (c: string) => ({ checksum: sum(c), at: "2026-11-20T08:00:00Z", by: "J. Pell" });
const member = aDrive("NV-0002", {
  memberOf: ["array md0"],
  contents: [{ part: "b1", sizeBytes: 9, kind: "linux_raid_member", label: null, mountedAt: [] }],
});
const note = (verdict: string, more: object = {}) =>
  compatNoteSchema.parse({
    schemaVersion: 1,
    subject: { kind: "drive model", value: "Alder 480" },
    profile: "cairn-hypervisor",
    version: "9",
    verdict,
    by: "J. Pell",
    at: "2026-11-01T08:00:00Z",
    ...more,
  });
const asking = (requirements: object) => ({
  profile: {
    requirements: { ...aBuild().profile!.requirements, ...requirements },
  },
});
const inside = (changes: Parameters<typeof soundInside>[0]): BuildChanges => ({
  image: {
    inside: {
      found: soundInside(changes),
      fileName: "cairn-9.iso",
      at: "2026-11-20T08:00:00Z",
      by: "J. Pell",
    },
  },
});
const verdict = (x64: { answer: "does not" | "on some firmware"; reason: string }) => {
  const { optical } = soundInside().verdict;
  return { optical: { ...optical, x64 }, stick: { ...optical, x64 } };
};
const agreed = (typed: string, holds: string | null, drive = "NV-0001") => ({
  drive,
  typed,
  holds,
  by: "J. Pell",
  at: "2026-11-20T08:00:00Z",
});
const pair = (changes: Partial<Drive> = {}, second: Partial<Drive> = {}): BuildChanges => ({
  drives: [aDrive("NV-0001", { seenAs: "a", ...changes }), aDrive("NV-0002", { seenAs: "b", ...second })],
});
/** Another drive with a system of its own, which the firmware has an entry for. */
const elder: BuildChanges = {
  drives: [
    aDrive("NV-0001", {}),
    aDrive("NV-0002", {
      contents: [
        { part: "b1", sizeBytes: 9, kind: "vfat", label: null, mountedAt: [], partUuid: "aa-01" },
        { part: "b2", sizeBytes: 9, kind: "ext4", label: null, mountedAt: ["/"] },
      ],
    }),
  ],
  facts: {
    system: { osName: "Saddler 22" },
    firmware: {
      mode: "uefi",
      order: ["0001"],
      entries: [
        { id: "0001", label: "saddler", active: true, kind: "disk", path: "HD(1,GPT,aa-01)/File(\\a.efi)" },
      ],
    },
  },
};
const portEntry = {
  ...{ id: "0001", label: "Port 1", active: true, kind: "network" as const },
  path: `MAC(${MAC.replaceAll(":", "")},1)`,
};
/** A target on a storage network, beside what was read of the firmware. */
const onSan = (firmware: object): BuildChanges => ({
  drives: [aDrive("NV-0001", { san: "Fibre Channel", sanPaths: 1 })],
  facts: { firmware },
});
const mirrored = (sheet: object = {}, second: Partial<Drive> = {}): BuildChanges => ({
  ...pair({}, second),
  profile: { layouts: ["single drive", "mirror", "raidz2"] },
  sheet: {
    "storage.layout": "mirror",
    "storage.partners": [{ drive: "NV-0002", role: "member" }],
    ...sheet,
  },
});
const twinOf = (id: string) => aDrive(id, {});

/** For every rule: changes to a sound build that make it fire, at this severity, saying this. */
const FIRING: [code: string, severity: string, says: RegExp, changes: BuildChanges][] = [
  ["machine.none", "stop", /No machine is chosen/, { machine: null }],
  ["machine.memory", "stop", /2\.00 GiB/, { facts: { memory: { installedBytes: 2 ** 31 } } }],
  ["machine.memory", "caution", /recommends/, { facts: { memory: { installedBytes: 12 * 2 ** 30 } } }],
  [
    "machine.not-read",
    "caution",
    /Cairn Hypervisor 9 requires virtualisation \(required\)/,
    { facts: { processors: { cores: 8, architecture: "x86_64" } } },
  ],
  [
    "machine.not-read",
    "caution",
    /Cairn Hypervisor 9 requires memory \(an amount\)/,
    { facts: { memory: {} } },
  ],
  [
    "machine.not-read",
    "caution",
    /Cairn Hypervisor 9 requires boot mode \(UEFI or legacy BIOS\)/,
    { facts: { firmware: {} } },
  ],
  [
    "machine.architecture",
    "stop",
    /and Cairn Hypervisor 9 supports aarch64/,
    asking({ architectures: ["aarch64"] }),
  ],
  [
    "machine.role",
    "note",
    /Cairn Hypervisor 9 is for hypervisor/,
    { document: { typed: { role: "storage" } } },
  ],
  [
    "machine.cores",
    "stop",
    /1 cores/,
    { facts: { processors: { cores: 1, architecture: "x86_64", virtualisation: true } } },
  ],
  [
    "machine.architecture",
    "stop",
    /processor is aarch64, and the image is for x86_64/,
    { facts: { processors: { cores: 8, architecture: "aarch64", virtualisation: true } } },
  ],
  [
    "machine.virtualisation",
    "stop",
    /Virtualisation is required for Cairn Hypervisor 9/,
    { facts: { processors: { cores: 8, architecture: "x86_64", virtualisation: false } } },
  ],
  [
    "machine.no-remote-hands",
    "stop",
    /no management controller/,
    { facts: { controller: { present: false } } },
  ],
  [
    "machine.media-licence",
    "stop",
    /not licensed/,
    { facts: { controller: { present: true, virtualMedia: "not licensed" } } },
  ],
  ["image.none", "stop", /No image/, { image: null }],
  ["image.no-profile", "stop", /cairn-hypervisor/, { profile: null }],
  ["image.no-checksum", "caution", /cairn-9\.iso/, { image: { published: null } }],
  [
    "image.bad-checksum",
    "stop",
    /SHA-256 has 64 digits; this has 3/,
    { image: { published: { algorithm: "sha256", value: "abc" } } },
  ],
  [
    "image.not-verified",
    "caution",
    /and no checksum was computed from the file/,
    { image: { computed: null } },
  ],
  [
    "image.checksum-differs",
    "stop",
    /cairn-9\.iso does not match its published checksum/,
    { image: { computed: computed("b") } },
  ],
  ["image.support-over", "caution", /1 Jan 2026/, { image: { supportEnds: "2026-01-01" } }],
  [
    "stick.too-small",
    "stop",
    /too little/,
    { sheet: { "image.way": "stick", "image.stick.sizeBytes": 1000 } },
  ],
  [
    "stick.holds-data",
    "caution",
    /holiday pictures/,
    { sheet: { "image.way": "stick", "image.stick.holds": "holiday pictures" } },
  ],
  [
    "stick.wrong-mode",
    "stop",
    /the stick will not boot in UEFI mode/,
    { sheet: { "image.way": "stick", "image.stick.written": "legacy" } },
  ],
  [
    "boot.image-mode",
    "stop",
    /The image does not boot in legacy BIOS mode/,
    { image: { bootModes: ["uefi"], inside: null }, sheet: { "boot.mode": "legacy" } },
  ],
  [
    "boot.profile-mode",
    "stop",
    /Cairn Hypervisor 9 does not support legacy BIOS mode/,
    { profile: { firmware: { modes: ["uefi"], bootMenuSeconds: 5 } }, sheet: { "boot.mode": "legacy" } },
  ],
  [
    "boot.mode-switch",
    "caution",
    /booted in UEFI mode and is planned in legacy BIOS mode; any installed system will no longer/,
    { sheet: { "boot.mode": "legacy" } },
  ],
  [
    "boot.media-first",
    "stop",
    /the restart after the installation boots the installer again/,
    { sheet: { "boot.start": "media first in the boot order" } },
  ],
  [
    "boot.medium-passed",
    "stop",
    /virtual CD has only a loader for another processor architecture/,
    { facts: { processors: { architecture: "aarch64" } } },
  ],
  [
    "boot.installer-again",
    "stop",
    /the first restart boots the installer of Cairn Hypervisor 9\.0 from the virtual CD/,
    { sheet: { "boot.order": ["medium", "NV-0001"] } },
  ],
  [
    "boot.other-system",
    "stop",
    /the first restart boots Saddler 22 from Alder 480 instead of Cairn Hypervisor 9/,
    { ...elder, sheet: { "boot.order": ["NV-0002"] } },
  ],
  [
    "boot.nowhere",
    "stop",
    /The disc in virtual CD has no UEFI boot image/,
    {
      ...inside({ verdict: verdict({ answer: "does not", reason: "it has none" }) }),
      profile: { secureBoot: "must be off" },
    },
  ],
  [
    "boot.depends",
    "caution",
    /the first restart boots Cairn Hypervisor 9 from Alder 480 if the network of eno1 offers no boot file/,
    {
      facts: { firmware: { mode: "uefi", order: ["0001"], entries: [portEntry] } },
      sheet: { "boot.order": [MAC] },
    },
  ],
  [
    "boot.stale-entries",
    "note",
    /"gone" \(0007\)/,
    {
      facts: {
        firmware: {
          mode: "uefi",
          order: [],
          entries: [{ ...portEntry, id: "0007", label: "gone", path: "HD(1,GPT,zz)" }],
        },
      },
    },
  ],
  [
    "boot.single-card",
    "caution",
    /The system boots from one card/,
    { drives: [aDrive("NV-0001", { media: "card" })] },
  ],
  [
    "boot.cards-overdue",
    "stop",
    /^CARDS was last seen at 38 %/,
    { ...syncing(38, 60), now: "2026-11-20T09:00:00.000Z" },
  ],
  ["boot.cards-degraded", "stop", /CARDS is degraded/, degradedCards],
  ["boot.cards-syncing", "note", /^38 % is done.*expected until it ends/, syncing(38, 1560)],
  ["boot.san-initiator", "caution", /and the boot entries of the firmware were not collected/, onSan({})],
  [
    "boot.san-initiator",
    "stop",
    /no boot entry of the firmware leads to a storage network/,
    onSan({ mode: "uefi", order: [], entries: [portEntry] }),
  ],
  ["boot.san-path", "caution", /is reached by one path only/, onSan({})],
  ["boot.external", "caution", /a device outside/, { drives: [aDrive("NV-0001", { media: "usb" })] }],
  [
    "boot.setting-differs",
    "note",
    /Network boot is Enabled, planned off/,
    { facts: { firmware: { mode: "uefi", order: [], entries: [], settings: { PxeDev1EnDis: "Enabled" } } } },
  ],
  [
    "boot.site-setting",
    "caution",
    /^This sheet requires Secure Boot on, site policy off\.$/,
    { site: { firmware: [{ role: null, setting: "secureBoot", value: "off", why: "" }] } },
  ],
  [
    "boot.cannot-set",
    "caution",
    /After power loss \(planned on: the machine returns/,
    { sheet: { "boot.settings": [{ key: "powerLoss", found: "", done: "cannot be set" }] } },
  ],
  [
    "boot.same-name",
    "caution",
    /menu shows "Port 1" more than once/,
    {
      facts: {
        firmware: {
          ...{ mode: "uefi", order: [] },
          entries: [portEntry, { ...portEntry, id: "0002", path: `${portEntry.path}/IPv4(0.0.0.0)` }],
        },
      },
    },
  ],
  ["boot.secure-unsigned", "stop", /is not signed/, { image: { inside: null, loaderSigned: "unsigned" } }],
  [
    "boot.secure-unsigned",
    "stop",
    /is not signed/,
    inside({
      loaders: [
        { path: "EFI/BOOT/BOOTX64.EFI", arch: "x64", where: "boot image", signed: false, signer: null },
      ],
    }),
  ],
  [
    "boot.secure-unsigned",
    "caution",
    /it was not inspected/,
    { image: { inside: null, loaderSigned: "unknown" } },
  ],
  [
    "boot.mbr-limit",
    "caution",
    /only 2\.20 TB \(2\.00 TiB\)/,
    { drives: [aDrive("NV-0001", { sizeBytes: 4e12 })], sheet: { "boot.mode": "legacy" } },
  ],
  ["storage.no-target", "stop", /No target drive is chosen/, { sheet: { "storage.target": null } }],
  [
    "storage.target-gone",
    "stop",
    /The target NV-0001 was not found at the last import/,
    { drives: [aDrive("NV-0001", { missingSince: "2026-11-20T08:00:00Z" })] },
  ],
  [
    "storage.letter-only",
    "stop",
    /and nothing distinguishes it from the others after a restart/,
    {
      drives: [aDrive("NV-0001", { serial: null, wwn: null }), aDrive("SA-9", { sizeBytes: 9e11 })],
      sheet: { "storage.leaveAlone": ["SA-9"] },
    },
  ],
  [
    "storage.letter-only",
    "caution",
    /only drive/,
    { drives: [aDrive("NV-0001", { serial: null, wwn: null })] },
  ],
  [
    "storage.holds-data",
    "stop",
    /On Alder 480/,
    { drives: [aDrive("NV-0001", { contents: member.contents })] },
  ],
  [
    "storage.not-read",
    "stop",
    /the erasure is not confirmed/,
    { drives: [aDrive("NV-0001", { contents: null })] },
  ],
  [
    "storage.not-read",
    "caution",
    /Pell confirmed the erasure on 20 Nov 2026/,
    {
      drives: [aDrive("NV-0001", { contents: null })],
      sheet: { "storage.erase": [agreed("V-0001", "not collected")] },
    },
  ],
  [
    "storage.layout",
    "stop",
    /mirror needs at least 2 drives, and 1 is chosen/,
    mirrored({ "storage.partners": [] }),
  ],
  [
    "storage.layout",
    "stop",
    /single drive is one drive, and 2 are chosen/,
    mirrored({ "storage.layout": "single drive" }),
  ],
  [
    "storage.layout",
    "stop",
    /mirror is not offered by Cairn Hypervisor 9/,
    { ...mirrored(), profile: undefined },
  ],
  [
    "storage.layout",
    "note",
    /mirror uses 400 GB \(373 GiB\) of each drive/,
    mirrored({}, { sizeBytes: 4e11 }),
  ],
  [
    "storage.layout",
    "stop",
    /cannot use .*V-0003.* as a spare: it is smaller/,
    {
      ...mirrored({
        "storage.partners": [
          { drive: "NV-0002", role: "member" },
          { drive: "NV-0003", role: "spare" },
        ],
      }),
      drives: [...(pair().drives ?? []), aDrive("NV-0003", { sizeBytes: 1e11 })],
    },
  ],
  [
    "storage.breaks-set",
    "stop",
    /member is taken from array md0/,
    {
      drives: [aDrive("NV-0001", { memberOf: ["array md0"] }), member],
      sheet: { "storage.leaveAlone": ["NV-0002"] },
    },
  ],
  [
    "storage.hidden",
    "stop",
    /only the management controller reports it/,
    {
      drives: [aDrive("NV-0001", { seenAs: "?" }), aDrive("SA-9", { sizeBytes: 9e11 })],
      sheet: { "storage.leaveAlone": ["SA-9"] },
    },
  ],
  [
    "storage.alike",
    "caution",
    /1 other drives also show as "Alder 480 447 GiB"/,
    { drives: [twinOf("NV-0001"), twinOf("NV-0002")], sheet: { "storage.leaveAlone": ["NV-0002"] } },
  ],
  [
    "storage.undecided",
    "caution",
    /900 GB \(838 GiB\) is in the machine and has no use on this sheet/,
    { drives: [twinOf("NV-0001"), aDrive("SA-9", { sizeBytes: 9e11 })] },
  ],
  ["storage.too-small", "stop", /8\.00 GB/, { drives: [aDrive("NV-0001", { sizeBytes: 8e9 })] }],
  ["storage.removable", "caution", /removable/, { drives: [aDrive("NV-0001", { media: "usb" })] }],
  [
    "storage.single",
    "note",
    /one of 2 drives/,
    {
      drives: [twinOf("NV-0001"), aDrive("SA-9", { sizeBytes: 9e11 })],
      sheet: { "storage.leaveAlone": ["SA-9"] },
    },
  ],
  ["network.no-port", "caution", /no port is chosen/, { sheet: { "network.port": null } }],
  [
    "network.wireless-port",
    "caution",
    /wlan0 is wireless; eno1 is wired/,
    { sheet: { "network.port": "02:61:0a:00:00:99" }, wirelessToo: true },
  ],
  ["network.no-link", "caution", /no link/, { portLink: "down" }],
  [
    "network.no-link",
    "caution",
    /ports with a link/,
    {
      facts: {
        ports: [
          { mac: MAC, seenAs: "eno1", kind: "ethernet", link: "down" },
          { mac: "02:61:0a:00:00:15", seenAs: "eno2", kind: "ethernet", link: "up" },
        ].map((p) => portSchema.parse(p)),
      },
    },
  ],
  ["network.no-address", "stop", /The address assignment is static/, { sheet: { "network.address": "" } }],
  [
    "network.not-an-address",
    "stop",
    /10\.61\.10\.20\/24/,
    { sheet: { "network.address": "10.61.10.20/24" } },
  ],
  ["network.no-segment", "stop", /none is chosen/, { sheet: { "network.segment": null } }],
  [
    "network.no-segment",
    "stop",
    /"old" no longer exists at the site/,
    { sheet: { "network.segment": "old" } },
  ],
  [
    "network.taken",
    "stop",
    /93\.184\.10\.20 is in use by far-away/,
    {
      neighbours: [{ name: "far-away", addresses: ["93.184.10.20"], here: false }],
      sheet: { "network.address": "93.184.10.20" },
    },
  ],
  [
    "network.dynamic",
    "caution",
    /the date 19 Nov 2026 by which it was to become static has passed/,
    { sheet: { "network.school": "dynamic", "network.fixedBy": "2026-11-19" } },
  ],
  [
    "network.outside",
    "stop",
    /10\.61\.99\.20 is not in 10\.61\.10\.0\/24/,
    { sheet: { "network.address": "10.61.99.20" } },
  ],
  ["network.edge", "stop", /broadcast address/, { sheet: { "network.address": "10.61.10.255" } }],
  [
    "network.taken",
    "stop",
    /10\.61\.10\.9 is in use by the printer/,
    { sheet: { "network.address": "10.61.10.9" } },
  ],
  [
    "network.taken",
    "stop",
    /10\.61\.10\.20 is in use by wrk-hv2/,
    { neighbours: [{ name: "wrk-hv2", addresses: ["10.61.10.20"] }] },
  ],
  [
    "image.damaged",
    "stop",
    /cairn-9\.iso: cut off: 60 %/,
    inside({ faults: [{ message: "cut off: 60 %", grave: true }] }),
  ],
  ["image.size-differs", "caution", /The file has 5 B/, inside({ sizeBytes: 5 })],
  [
    "image.not-inspected",
    "note",
    /The data of cairn-9\.iso was entered manually/,
    { image: { inside: null } },
  ],
  [
    "boot.inside",
    "stop",
    /no entry for UEFI/,
    inside({ verdict: verdict({ answer: "does not", reason: "no entry for UEFI" }) }),
  ],
  [
    "boot.inside",
    "caution",
    /this image boots on some firmware only/,
    {
      ...inside({ verdict: verdict({ answer: "on some firmware", reason: "El Torito on a stick" }) }),
      sheet: { "image.way": "stick" },
    },
  ],
  [
    "machine.iommu",
    "stop",
    /no IOMMU groups/,
    {
      facts: { processors: { cores: 8, architecture: "x86_64", virtualisation: true, iommu: false } },
      ...asking({ iommu: "required" }),
    },
  ],
  [
    "machine.level",
    "stop",
    /the processor supports x86-64-v2/,
    {
      facts: { processors: { cores: 8, architecture: "x86_64", virtualisation: true, level: "x86-64-v2" } },
      ...asking({ processorLevel: "x86-64-v3" }),
    },
  ],
  [
    "machine.firmware-least",
    "caution",
    /storage controller is at 16\.00/,
    {
      facts: {
        storageControllers: [
          {
            id: "3b:00.0",
            name: "Halden 3 host adapter",
            mode: "host adapter",
            firmware: "16.00",
            driver: null,
            health: null,
          },
        ],
      },
      ...asking({
        firmware: [
          { model: "Halden 3", part: "storage controller", least: "16.08", why: "drops drives under load" },
        ],
      }),
    },
  ],
  [
    "machine.firmware-least",
    "caution",
    /Cairn Hypervisor 9 requires 2\.11/,
    {
      facts: { firmware: { mode: "uefi", order: [], entries: [], version: "2.9.1" } },
      ...asking({
        firmware: [{ model: "R114", part: "system firmware", least: "2.11", why: "hangs at the first boot" }],
      }),
    },
  ],
  [
    "storage.target-failing",
    "stop",
    /8 pending sectors/,
    { drives: [aDrive("NV-0001", { health: { hours: 9000, pending: 8 } })] },
  ],
  [
    "storage.target-unread",
    "caution",
    /has been used before/,
    {
      drives: [aDrive("NV-0001", { contents: member.contents })],
      sheet: { "storage.erase": [agreed("V-0001", "linux_raid_member")] },
    },
  ],
  [
    "compat.does-not-work",
    "caution",
    /recorded as not working with Cairn Hypervisor 9 \(recorded by J/,
    {
      compat: [note("does not work", { subject: { kind: "usb", value: "f0a1:0001" } })],
      facts: { usb: [{ ids: "f0a1:0001", name: "Stick" }] },
    },
  ],
  ["compat.does-not-work", "stop", /1 × Alder 480/, { compat: [note("does not work")] }],
  [
    "compat.condition",
    "caution",
    /firmware 3\.1 first/,
    { compat: [note("works with a condition", { condition: "firmware 3.1 first" })] },
  ],
  [
    "compat.works",
    "note",
    /recorded as working with Cairn Hypervisor 9 \(recorded by J/,
    { compat: [note("works")] },
  ],
  [
    "network.in-pool",
    "stop",
    /10\.61\.10\.100 to 10\.61\.10\.199/,
    { sheet: { "network.address": "10.61.10.120" } },
  ],
  ["network.not-reserved", "caution", /reserved for it: none/, { sheet: { "network.school": "reserved" } }],
  [
    "network.gateway",
    "stop",
    /it is the address of the machine itself/,
    { sheet: { "network.gateway": "10.61.10.20" } },
  ],
  ["network.gateway", "stop", /outside 10\.61\.10\.0\/24/, { sheet: { "network.gateway": "10.61.11.1" } }],
  [
    "network.no-gateway",
    "note",
    /No gateway is set for Works management/,
    { sheet: { "network.gateway": "" } },
  ],
  ["network.name-servers", "caution", /none is set/, { sheet: { "network.nameServers": [] } }],
  [
    "network.name-servers",
    "stop",
    /"ns1" is not an IP address/,
    { sheet: { "network.nameServers": ["ns1"] } },
  ],
  [
    "network.dynamic",
    "caution",
    /no date is set by which it becomes static/,
    { sheet: { "network.school": "dynamic" } },
  ],
  ["answers.host-name", "stop", /an address, not a name/, { sheet: { "answers.hostName": "10.61.10.20" } }],
  [
    "answers.name-taken",
    "stop",
    /the name of wrk-old/,
    { neighbours: [{ name: "wrk-old", hostNames: ["WRK-HV1"] }] },
  ],
  ["answers.name-pattern", "note", /\(wrk-hv#\)/, { sheet: { "answers.hostName": "box7" } }],
  [
    "answers.name-stays",
    "note",
    /and the site has no name pattern for such machines/,
    { site: { naming: [] } },
  ],
  [
    "answers.domain",
    "caution",
    /"wrk-hv1\.net" is the host name with a public suffix/,
    { sheet: { "answers.domain": "wrk-hv1.net" } },
  ],
  [
    "answers.domain",
    "caution",
    /"lan" is a single label that is not reserved for private use and can be assigned as a public suffix/,
    { sheet: { "answers.domain": "lan" } },
  ],
  ["answers.domain", "caution", /by multicast/, { sheet: { "answers.domain": "works.local" } }],
  [
    "answers.domain",
    "caution",
    /"works\.invalid" is reserved so that no name under it resolves \(RFC 6761\)/,
    { sheet: { "answers.domain": "works.invalid" } },
  ],
  [
    "answers.software",
    "stop",
    /which would be readable in files/,
    { sheet: { "answers.source": "http://a:b@c.example/" } },
  ],
  [
    "answers.software",
    "stop",
    /it must begin with http:\/\/ or https:\/\//,
    { sheet: { "answers.proxy": "10.61.10.8:3128" } },
  ],
  ["answers.software", "stop", /"a;b" is not a package name/, { sheet: { "answers.components": ["a;b"] } }],
  [
    "answers.software",
    "stop",
    /one of the commands is not a single line of text/,
    { sheet: { "answers.finish": ["a\nb"] } },
  ],
  [
    "answers.edition",
    "caution",
    /the installer asks for an OS edition/,
    { profile: shippedProfile("pallant-server-4") },
  ],
  [
    "answers.edition",
    "stop",
    /"Corer" is not an edition of Pallant Server/,
    { profile: shippedProfile("pallant-server-4"), sheet: { "answers.edition": "Corer" } },
  ],
  ["answers.software", "stop", /is not a service name/, { sheet: { "answers.services": ["-x"] } }],
  ["answers.domain", "stop", /and Cairn Hypervisor requires one/, { sheet: { "answers.domain": "" } }],
  [
    "answers.domain",
    "caution",
    /"pumps-9\.net" is neither the domain of the site nor reserved for private use/,
    { sheet: { "answers.domain": "pumps-9.net" } },
  ],
  ["answers.no-account", "stop", /No account can administer/, { sheet: { "answers.accounts": [] } }],
  [
    "answers.account-name",
    "stop",
    /Cairn Hypervisor reserves this name/,
    { sheet: { "answers.accounts": [{ name: "daemon", role: "administrator", logIn: "key", keys: [] }] } },
  ],
  [
    "answers.two-doors",
    "caution",
    /root and jpell both allow password login/,
    {
      sheet: {
        "answers.accounts": [
          { name: "root", role: "super-user", logIn: "password", keys: [] },
          { name: "jpell", role: "administrator", logIn: "password", keys: [] },
        ],
      },
    },
  ],
  [
    "answers.administrator",
    "caution",
    /Cairn Hypervisor 9 requires an administrator in addition to root/,
    {
      profile: {
        accounts: { superUser: "root", needsAdministrator: true, adminGroup: "wheel", reserved: [] },
      },
    },
  ],
  [
    "answers.secrets",
    "note",
    /No location is recorded for the passwords/,
    { sheet: { "answers.secretsKept": "" } },
  ],
  [
    "answers.keyboard",
    "caution",
    /the installer does not offer "dvorak"/,
    { sheet: { "answers.keyboard": "dvorak" } },
  ],
  ["answers.time-zone", "stop", /"London" is not a time zone/, { sheet: { "answers.timeZone": "London" } }],
  [
    "answers.time-zone",
    "note",
    /different from the time zone of the site/,
    { sheet: { "answers.timeZone": "UTC" } },
  ],
  [
    "handover.evaluation",
    "caution",
    /60 days; if installed today, the last day is 19 Jan 2027/,
    { sheet: { "handOver.licence": "evaluation" } },
  ],
  [
    "handover.evaluation-over",
    "caution",
    /ended on 2 Jan 2026/,
    { sheet: { "handOver.licence": "none needed", "handOver.evaluationEnds": "2026-01-02" } },
  ],
  [
    "handover.owner",
    "note",
    /No person or team is named to receive the machine/,
    { sheet: { "handOver.owner": "" } },
  ],
  ...ROAD_FIRING,
  ...PHRASE_FIRING,
  ...ANSWERS_FIRING,
  ...NETWORK_FIRING,
  ...SET_FIRING,
  ...PLAN_FIRING,
];

describe("every rule", () => {
  it("is silent on a sound build", () => expect(found({})).toEqual([]));

  it.each(FIRING)("%s fires as a %s", (code, severity, says, changes) => {
    const finding = found(changes).find((f) => f.code === code && says.test(f.says));
    expect(finding).toMatchObject({ severity });
    expect(finding?.says).toMatch(says);
    expect(`${finding?.says}${finding?.remedy}`).not.toMatch(/\{|\}|undefined|null/);
  });

  it.each(ANSWERS_SILENT)("%s is silent about what only looks like it", (code, changes) => {
    expect(found(changes).filter((f) => f.code === code)).toEqual([]);
  });

  it("tells with some case each phrase that its sentence can have", () => {
    const told = new Set(
      FIRING.map(([, , , changes]) => aBuild(changes)).flatMap((build) =>
        SHEET_CHECKS.flatMap(({ code, run }) =>
          run(build).flatMap(({ facts }) =>
            Object.entries(facts).map(([fact, value]) => `${code} ${fact}: ${value}`),
          ),
        ),
      ),
    );
    const machine = new Set(Object.keys(MACHINE_MESSAGES));
    const phrases = Object.entries<Message>(SHEET_MESSAGES).flatMap(([code, { phrases: all }]) =>
      Object.entries(all).flatMap(([fact, texts]) =>
        machine.has(code) ? [] : Object.keys(texts).map((value) => `${code} ${fact}: ${value}`),
      ),
    );
    expect(phrases.length).toBeGreaterThan(40);
    expect(phrases.filter((p) => !told.has(p))).toEqual([]);
  });

  it("has a firing case, and words, and no words stand without a rule", () => {
    const codes = SHEET_CHECKS.map((c) => c.code);
    expect(new Set(codes).size).toBe(codes.length);
    // The rules about a machine alone have their cases beside them, in core/machine.
    const machine = new Set(MACHINE_CHECKS.map((c) => c.code));
    expect(new Set(FIRING.map((f) => f[0]))).toEqual(new Set(codes.filter((c) => !machine.has(c))));
    expect(new Set(Object.keys(SHEET_MESSAGES))).toEqual(
      new Set([...codes, ...Object.keys(MACHINE_MESSAGES)]),
    );
    expect(codes.length).toBeGreaterThanOrEqual(110);
  });
});

/** What is free in the segment of a build: rivals are told by the sheet's own address only, so that one is passed over. */
const FREE = "10.61.10.77";

/** The edition of the profile that the server finds for what a sheet keeps. */
const keptBy = ({ image }: Plan["sheet"], { edition }: Plan) =>
  edition && { ...edition, kept: image.edition ?? edition.kept };

describe("the cure of a finding", () => {
  const cured = new Map<string, string[]>();
  const cases = FIRING.map(([code, , , changes]) => [code, aBuild(changes)] as const);
  for (const [, plan] of cases) {
    const { sheet, machine, site, image, profile, edition } = plan;
    const ground = {
      ...{ nextFree: FREE, nextName: "wrk-hv77", build: { sheet } },
      context: { machine, site, image, profile, edition },
    };
    const { findings } = evaluateSheet(plan);
    for (const finding of findings) {
      const cure = cureOf(ground, finding);
      if (!cure) continue;
      const edits = Object.entries(cure.changes).map(([path, after]) => ({
        ...{ path, after },
        before: valueAt(sheet, path),
      }));
      const applied = applyEdits(sheet, edits);
      const left = applied.ok
        ? evaluateSheet(derive({ ...plan, sheet: applied.value, edition: keptBy(applied.value, plan) }))
            .findings
        : null;
      const outcome = left?.some((f) => f.key === finding.key) ? `${finding.key} stays` : "";
      cured.set(finding.code, [...(cured.get(finding.code) ?? []), left === null ? "refused" : outcome]);
      if (
        sheet.waivers.length === 0 &&
        edits.every((e) => JSON.stringify(e.before) === JSON.stringify(e.after))
      )
        cured.get(finding.code)!.push("changes nothing");
    }
  }

  it("does away with it, whatever else the sheet says", () => {
    const wrong = [...cured].flatMap(([code, outcomes]) =>
      outcomes.filter(Boolean).map((o) => `${code}: ${o}`),
    );
    expect(wrong.join("\n")).toBe("");
  });

  it("is reached for each finding that has one", () =>
    expect(CURED.filter((code) => !cured.has(code)).join("\n")).toBe(""));
});

it("lets another site have the same private address and short name", () => {
  const far = { name: "far-away", addresses: ["10.61.10.20"], hostNames: ["wrk-hv1"], here: false };
  expect(found({ neighbours: [far] })).toEqual([]);
  const full = { ...far, hostNames: ["wrk-hv1.marrowby.example"] };
  expect(found({ neighbours: [full] }).map((f) => f.code)).toEqual(["answers.name-taken"]);
});

it("stops one drive among many where others depend on the machine, and a pre-release outside a lab", () => {
  const of = (code: string, changes: BuildChanges) => found(changes).find((f) => f.code === code)?.severity;
  const two = {
    drives: [twinOf("NV-0001"), aDrive("SA-9", { sizeBytes: 9e11 })],
    sheet: { "storage.leaveAlone": ["SA-9"] },
  };
  const typed = (more: object): BuildChanges => ({ document: { typed: more } });
  expect(of("storage.single", { ...two, ...typed({ role: "hypervisor" }) })).toBe("caution");
  expect(of("storage.single", { ...two, ...typed({ role: "hypervisor", use: "lab" }) })).toBe("note");
  const early: BuildChanges = { profile: { support: { channel: "pre-release", ends: null } } };
  expect(of("image.pre-release", early)).toBe("stop");
  expect(of("image.pre-release", { ...early, ...typed({ use: "lab" }) })).toBe("caution");
});

describe("a stop that protects data", () => {
  const holding = { drives: [aDrive("NV-0001", { contents: member.contents })] };
  const ofData = (changes: BuildChanges) => found(changes).find((f) => f.code === "storage.holds-data");

  it("cannot be waived", () => {
    expect(ofData(holding)?.waivable).toBe(false);
    expect(
      found({ image: { computed: computed("b") } }).find((f) => f.code === "image.checksum-differs")
        ?.waivable,
    ).toBe(false);
  });

  it.each([
    [
      "the right tail, for what stands there",
      agreed("V-0001", "linux_raid_member"),
      "caution",
      /Pell confirmed the erasure on 20 Nov 2026/,
    ],
    [
      "a whole serial read aloud",
      agreed("nv-00 01", "linux_raid_member"),
      "caution",
      /confirmed the erasure/,
    ],
    ["the tail of another drive", agreed("V-0002", "linux_raid_member"), "stop", /no longer valid/],
    ["another drive", agreed("V-0001", "linux_raid_member", "NV-0002"), "stop", /not confirmed/],
    [
      "other contents",
      agreed("V-0001", "nothing found"),
      "stop",
      /is no longer valid: it covered: nothing found/,
    ],
    ["contents that nobody kept", agreed("V-0001", null), "stop", /its scope was not recorded/],
  ])("with a consent for %s", (_, consent, severity, says) => {
    const of = ofData({ ...holding, sheet: { "storage.erase": [consent] } });
    expect([of?.severity, of?.says]).toEqual([severity, expect.stringMatching(says)]);
  });

  it("asks for each drive of a planned set, and takes a consent that names it", () => {
    const holding = withSet(
      {},
      bulks(7, (i) => (i < 2 ? { contents: member.contents } : {})),
    );
    const plan = aBuild(holding);
    expect(consentViews(plan).map((c) => [c.drive, c.given])).toEqual([
      ["CB-01", null],
      ["CB-02", null],
    ]);
    expect(consentTo(plan, "CB-01", "CB-02", "J. Pell", "2026-11-20T08:00:00Z").ok).toBe(false);
    expect(consentTo(plan, "CB-03", "CB-03", "J. Pell", "2026-11-20T08:00:00Z").ok).toBe(true);
    const said = JSON.stringify(evaluateSheet(plan).findings.map((f) => [f.says, f.evidence]));
    expect(said).not.toMatch(/CB-0[12]/);
    // A road that keeps the system on its drive makes new sets all the same.
    const kept = { ...plan, keepsSystem: true };
    expect(consentViews(kept).map((c) => c.drive)).toEqual(["CB-01", "CB-02"]);
  });

  it("asks for each drive of a set", () => {
    const data = { contents: member.contents };
    const asked = found({
      ...mirrored(),
      drives: [aDrive("NV-0001", data), aDrive("NV-0002", data)],
    }).filter((f) => f.code === "storage.holds-data");
    expect(asked.map((f) => [f.severity, f.subject])).toEqual([
      ["stop", undefined],
      ["stop", "NV-0002"],
    ]);
  });

  it("is not broken by taking all members of a set as the target", () => {
    const both = mirrored({}, { memberOf: ["array md0"] });
    both.drives![0] = aDrive("NV-0001", { memberOf: ["array md0"] });
    expect(found(both).some((f) => f.code === "storage.breaks-set")).toBe(false);
  });

  it("about a set goes when the other members are freed as well", () => {
    const freed = found({
      drives: [aDrive("NV-0001", { memberOf: ["array md0"] }), member],
      sheet: { "storage.free": ["NV-0002"] },
    });
    expect(freed.some((f) => f.code === "storage.breaks-set")).toBe(false);
  });
});
