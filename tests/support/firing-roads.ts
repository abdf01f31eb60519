import { imageSchema } from "@/core/image";
import { registerEntrySchema } from "@/core/machine";
import { aBuild, aDrive, NOW, shippedProfile, soundInside, type BuildChanges } from "./builds";

const cairn6 = shippedProfile("cairn-hypervisor-6");
const cairn9 = shippedProfile("cairn-hypervisor-9");
export const bothCairns = [cairn6, cairn9];
export const runs = (osVersion: string) => ({
  system: { osId: "cairn", osName: `Cairn Hypervisor ${osVersion}`, osVersion },
});
export const card = aDrive("NV-0001", { media: "card" });

/** An image of the shelf, like the sheet's own with these changes. */
export const onShelf = (id: string, changes: object) => ({
  id,
  image: imageSchema.parse({ ...aBuild().image, ...changes }),
});

/** A stick of the register with the serial ST-0007. */
export const aStick = (changes: object = {}) => ({
  key: "ST-0007",
  entry: registerEntrySchema.parse({
    schemaVersion: 1,
    serial: "ST-0007",
    sizeBytes: 8e9,
    media: "usb",
    label: "blue stick",
    state: "on the shelf",
    ...changes,
  }),
});
const stickSheet = { "image.way": "stick", "image.stick.key": "ST-0007" };
const carries = (imageId: string, compared: boolean) => ({
  carries: { imageId, name: "Cairn 8.1", at: NOW, compared },
});

type Firing = [code: string, severity: string, says: RegExp, changes: BuildChanges];

/** Cases of the rules about images, roads, ways and sticks. */
export const ROAD_FIRING: Firing[] = [
  [
    "image.weak-checksum",
    "note",
    /it detects damage/,
    { image: { published: { algorithm: "md5", value: "a".repeat(32) }, computed: null } },
  ],
  [
    "image.road-closed",
    "stop",
    /No supported upgrade path leads from Cairn Hypervisor 5\.5 to Cairn Hypervisor 9/,
    { profiles: bothCairns, facts: runs("5.5"), sheet: { "image.road": "upgrade" } },
  ],
  [
    "image.stone-missing",
    "stop",
    /The upgrade path needs Cairn Hypervisor 6\.7/,
    { profiles: bothCairns, drives: [card] },
  ],
  [
    "image.stepping-stone",
    "note",
    /First upgrade to Cairn Hypervisor 6\.7/,
    { profiles: bothCairns, facts: runs("6.0"), sheet: { "image.road": "upgrade" } },
  ],
  [
    "image.road-loses",
    "caution",
    /Cairn Hypervisor 6\.7 is installed/,
    { profiles: bothCairns, facts: runs("6.7"), sheet: { "image.road": "upgrade" } },
  ],
  ["image.road-kept", "note", /it keeps data pools/, { profiles: bothCairns, facts: runs("6.7") }],
  [
    "image.known-fault",
    "caution",
    /Lowland Server 7: The installer shows no disk/,
    {
      profile: shippedProfile("lowland-server-7"),
      profiles: [shippedProfile("lowland-server-7")],
      facts: {
        pci: [
          {
            slot: "03:00.0",
            className: "RAID",
            classId: "0104",
            maker: "x",
            device: "y",
            ids: "1d0e:2208",
            subsystem: null,
            driver: null,
            iommuGroup: null,
            place: null,
          },
        ],
      },
    },
  ],
  [
    "image.known-fault",
    "note",
    /is full after about a year/,
    { profile: shippedProfile("hopper-backup-3"), profiles: [shippedProfile("hopper-backup-3")] },
  ],
  [
    "image.profile-newer",
    "note",
    /The steps use revision 1 of the OS profile/,
    { edition: { kept: 1, newest: 3 } },
  ],
  [
    "image.newer-exists",
    "note",
    /Cairn 9\.2 is in the library too/,
    {
      shelf: [
        onShelf("i2", { name: "Cairn 9.2", version: "9.2" }),
        onShelf("i3", { name: "Cairn 8", version: "8.0" }),
      ],
    },
  ],
  [
    "image.pre-release",
    "stop",
    /is a pre-release, and this machine is in production use/,
    { profile: { support: { channel: "pre-release", ends: null } } },
  ],
  ["image.odd-name", "note", /names of Cairn Hypervisor contain cairn/, { image: { fileName: "setup.iso" } }],
  [
    "image.maker-build",
    "caution",
    /and its name does not mention Ostler/,
    { image: { variant: "maker's custom" } },
  ],
  [
    "image.maker-build",
    "note",
    /Cairn 9, Ostler build is in the library for machines of Ostler/,
    { shelf: [onShelf("i2", { name: "Cairn 9, Ostler build", variant: "maker's custom" })] },
  ],
  [
    "image.line-over",
    "caution",
    /Cairn Hypervisor 6 got its last updates on 15 Nov 2025/,
    { profile: cairn6, profiles: [cairn6], image: { version: "6.7" }, sheet: { "boot.secureBoot": "off" } },
  ],
  [
    "image.way-closed",
    "stop",
    /It has no wired port/,
    { portKind: "wireless", sheet: { "image.way": "network" } },
  ],
  [
    "image.way-closed",
    "stop",
    /60\.0 GB \(55\.9 GiB\) does not fit on an optical disc/,
    { image: { sizeBytes: 60e9, inside: null }, sheet: { "image.way": "disc" } },
  ],
  [
    "image.slow-way",
    "note",
    /9 h 44 min to load the image/,
    {
      image: {
        sizeBytes: 7e9,
        inside: { found: soundInside({ sizeBytes: 7e9 }), fileName: "x", at: NOW, by: "J" },
      },
      facts: { controller: { present: true, virtualMedia: "licensed", mediaBytesPerSecond: 200_000 } },
      sticks: [aStick({ speedClass: "USB 3" })],
    },
  ],
  [
    "stick.no-identity",
    "caution",
    /old blue can be identified by its label only/,
    { sheet: { "image.way": "stick", "image.stick.name": "old blue" } },
  ],
  [
    "stick.other-image",
    "stop",
    /blue stick is planned to be used as it is, and holds: Cairn 8\.1/,
    { sticks: [aStick(carries("i9", true))], sheet: { ...stickSheet, "image.stick.ready": true } },
  ],
  [
    "stick.other-image",
    "stop",
    /blue stick is planned to be used as it is/,
    { sticks: [aStick()], sheet: { ...stickSheet, "image.stick.ready": true } },
  ],
  [
    "stick.not-compared",
    "caution",
    /blue stick was written on 20 Nov 2026 and not verified/,
    { sticks: [aStick(carries("i1", false))], sheet: { ...stickSheet, "image.stick.ready": true } },
  ],
  ["stick.too-small", "stop", /too little/, { sticks: [aStick({ sizeBytes: 1000 })], sheet: stickSheet }],
  [
    "stick.holds-data",
    "caution",
    /pump manuals/,
    { sticks: [aStick({ holds: "pump manuals" })], sheet: stickSheet },
  ],
  [
    "stick.wrong-mode",
    "stop",
    /the stick will not boot in UEFI mode/,
    {
      sticks: [aStick({ written: "legacy", ...carries("i1", true) })],
      sheet: { ...stickSheet, "image.stick.ready": true },
    },
  ],
  [
    "stick.scheme",
    "caution",
    /blue stick was written with a GPT/,
    {
      sticks: [aStick({ written: "legacy", scheme: "GPT", ...carries("i1", true) })],
      sheet: { ...stickSheet, "image.stick.ready": true, "boot.mode": "legacy" },
    },
  ],
  [
    "boot.secure-profile",
    "stop",
    /and Cairn Hypervisor 6 does not boot with it/,
    { profile: cairn6, profiles: [cairn6], image: { version: "6.7", supportEnds: "2030-01-01" } },
  ],
  ["boot.secure-off", "caution", /off/, { sheet: { "boot.secureBoot": "off" } }],
  [
    "boot.secure-off",
    "note",
    /off/,
    { profile: cairn6, profiles: [cairn6], image: { version: "6.7" }, sheet: { "boot.secureBoot": "off" } },
  ],
  [
    "storage.upgrade-target",
    "caution",
    /the collected data does not show which drive that is/,
    { profiles: bothCairns, facts: runs("6.7"), sheet: { "image.road": "upgrade" } },
  ],
  [
    "storage.upgrade-target",
    "stop",
    /” keeps the system on its present drive: that is .*V-0002/,
    {
      profiles: bothCairns,
      facts: runs("6.7"),
      sheet: { "image.road": "upgrade" },
      drives: [
        aDrive("NV-0001", {}),
        aDrive("NV-0002", {
          contents: [{ part: "a1", sizeBytes: 9, kind: "ext4", label: null, mountedAt: ["/"] }],
        }),
      ],
    },
  ],
  [
    "storage.boot-target",
    "stop",
    /Cairn Hypervisor 9 on a stick: not supported/,
    { drives: [aDrive("NV-0001", { media: "usb" })] },
  ],
  ["storage.boot-target", "caution", /on a flash card: discouraged/, { drives: [card] }],
];
