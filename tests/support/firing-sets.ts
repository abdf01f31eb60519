import type { Drive } from "@/core/machine";
import { aBuild, aDrive, type BuildChanges } from "./builds";

const BYTES = 12_000_138_625_024;

/** A large spinning drive in a bay, in good health and with nothing on it. */
export const bulk = (id: string, changes: Partial<Drive> = {}): Drive =>
  aDrive(id, {
    ...{ model: "Caldbeck 12000", sizeBytes: BYTES, media: "spinning", bay: id.replace(/\D+0*/, "") },
    ...{ seenAs: `sd-${id}`, controller: "3b:00.0", logicalSectorBytes: 512 },
    ...{ health: { passed: true, hours: 100, warnings: [] }, ...changes },
  });

export const bulks = (n: number, of: (i: number) => Partial<Drive> = () => ({})): Drive[] =>
  Array.from({ length: n }, (_, i) => bulk(`CB-0${i + 1}`, of(i)));

/** The sound build with drives beside its target, all of them in one planned set. */
export function withSet(
  set: object,
  drives: readonly Drive[] = bulks(7),
  more: BuildChanges = {},
): BuildChanges {
  const planned = {
    ...{ id: "1", name: "tank", keeper: "ZFS", type: "raidz2", groups: 1, spares: [] },
    ...{ members: drives.map((d) => d.id), ...set },
  };
  return {
    ...more,
    drives: [aDrive("NV-0001", {}), ...drives],
    sheet: { "storage.sets": [planned], ...more.sheet },
  };
}

/** Seven drives of data, and more that stand beside them. */
function beside({ special = 0, logs = 0 }: { special?: number; logs?: number }): BuildChanges {
  const drives = bulks(7 + special + logs);
  const ids = drives.map((d) => d.id);
  return withSet(
    { members: ids.slice(0, 7), special: ids.slice(7, 7 + special), logs: ids.slice(7 + special) },
    drives,
  );
}
const full = { contents: [{ part: "p1", sizeBytes: 9, kind: "zfs_member", label: "old", mountedAt: [] }] };
const first = (changes: Partial<Drive>) => bulks(7, (i) => (i === 0 ? changes : {}));
const consent = (holds: string | null) => ({
  "storage.erase": [{ drive: "CB-01", typed: "CB-01", holds, by: "J. Pell", at: "2026-11-20T08:00:00Z" }],
});
const controller = (mode: "RAID" | "pass-through", id = "3b:00.0") => ({
  facts: {
    storageControllers: [{ id, name: "Ostler S4", mode, firmware: null, driver: null, health: null }],
  },
});
const raid6 = { keeper: "RAID controller", type: "6" };
const old: BuildChanges = {
  facts: {
    sets: [
      {
        ...{ id: "pool tank", kind: "pool", name: "tank", level: "mirror", state: "ONLINE", health: "good" },
        ...{ sizeBytes: null, wwn: null, members: [], progress: null, remark: null },
      },
    ],
  },
};

type Parts = NonNullable<NonNullable<BuildChanges["profile"]>["partitioning"]>["parts"];
/** The sound build under a profile that cuts its target so. */
function cut(parts: object[], more: BuildChanges = {}): BuildChanges {
  const partitioning = {
    tool: "parted" as const,
    legacyTable: "dos" as const,
    grow: [],
    parts: parts as Parts,
  };
  return { ...more, profile: { partitioning, ...more.profile } };
}
const whole = { name: "root", use: "linux", size: {}, fs: "ext4", volumes: [] };
const pool = { name: "root pool", use: "zfs", size: {}, fs: "zfs", volumes: [] };
const swapping = (school: string): BuildChanges => ({ sheet: { "storage.swap": school } });
const oldWay = (sizeBytes: number, more: Partial<Drive> = {}): BuildChanges => ({
  drives: [aDrive("NV-0001", { sizeBytes, ...more })],
  sheet: { "boot.mode": "legacy" },
});

/** Cases of the rules about the parts of the target. */
export const PLAN_FIRING: [code: string, severity: string, says: RegExp, changes: BuildChanges][] = [
  ["storage.idle", "caution", /leaves 3\d\d GB .* of 480 GB/, cut([{ ...whole, size: { mib: 100_000 } }])],
  [
    "storage.target-share",
    "stop",
    /mirror of 4 drives: 480 GB .* of 1\.92 TB/,
    {
      drives: [1, 2, 3, 4].map((n) => aDrive(`NV-000${n}`, {})),
      sheet: {
        "storage.layout": "mirror",
        "storage.partners": [2, 3, 4].map((n) => ({ drive: `NV-000${n}`, role: "member" })),
      },
    },
  ],
  ["storage.table-limit", "stop", /exceeds the msdos/, cut([whole], oldWay(4e12))],
  [
    "storage.efi-small",
    "stop",
    /of 100 MiB; in clusters of one sector it has 25,5\d\d/,
    {
      ...cut([{ name: "EFI", use: "efi", size: { mib: 100 }, fs: "vfat", volumes: [] }, whole]),
      drives: [aDrive("NV-0001", { logicalSectorBytes: 4096 })],
    },
  ],
  ["storage.legacy-sectors", "stop", /4,096/, oldWay(480e9, { logicalSectorBytes: 4096 })],
  [
    "storage.swap-large",
    "caution",
    /is 4\d % of the drive/,
    cut([{ name: "swap", use: "swap", size: { mib: 200_000 }, fs: "swap", volumes: [] }, whole]),
  ],
  ["storage.swap-pool", "caution", /no partition for the swap of 4\.29 GB/, cut([pool], swapping("4 GiB"))],
  [
    "storage.cache-memory",
    "caution",
    /takes up to 8\.00 GiB of 16\.0 GiB; 8\.00 GiB stay/,
    withSet({}, bulks(7), {
      facts: { memory: { installedBytes: 2 ** 34 } },
      profile: {
        zfsCache: { share: 0.5 },
        requirements: { ...aBuild().profile!.requirements, virtualisation: "required" },
      },
    }),
  ],
  ["storage.swap-by-hand", "note", /makes no swap by itself/, cut([whole], swapping("4 GiB"))],
];

/** Cases of the rules about sets that are made of other drives. */
export const SET_FIRING: [code: string, severity: string, says: RegExp, changes: BuildChanges][] = [
  ["storage.set-shape", "stop", /a group has 2 of at least 3 drives/, withSet({}, bulks(2))],
  ["storage.set-shape", "stop", /it has no name/, withSet({ name: "" })],
  ["storage.set-name", "stop", /one that stands on the drives now/, withSet({}, bulks(7), old)],
  [
    "storage.set-name",
    "stop",
    /another set of this sheet/,
    withSet({}, bulks(7), {
      sheet: { "storage.sets": [1, 2].map((n) => ({ id: String(n), name: "tank", members: [`CB-0${n}`] })) },
    }),
  ],
  ["storage.set-keeper", "stop", /makes no pool of ZFS/, withSet({}, bulks(7), { profile: { sets: {} } })],
  [
    "storage.set-keeper",
    "stop",
    /makes no array/,
    withSet({ keeper: "md", type: "6" }, bulks(7), { profile: { sets: { ZFS: "script" } } }),
  ],
  ["storage.set-later", "note", /after this build\.$/, withSet({ later: "2026-12-20" })],
  ["storage.set-later", "caution", /that day is over/, withSet({ later: "2026-11-01" })],
  ["storage.set-drive", "stop", /the system is installed on it/, withSet({ spares: ["NV-0001"] })],
  [
    "storage.set-drive",
    "stop",
    /it must not be touched/,
    withSet({}, bulks(7), { sheet: { "storage.leaveAlone": ["CB-01"] } }),
  ],
  ["storage.set-drive", "stop", /another set claims it too/, withSet({ spares: ["CB-01"] })],
  [
    "storage.set-drive",
    "stop",
    /not seen at the last import/,
    withSet({}, first({ missingSince: "2026-11-01T08:00:00Z" })),
  ],
  ["storage.set-erases", "stop", /pool tank.*nobody has agreed/, withSet({}, first(full))],
  [
    "storage.set-erases",
    "caution",
    /J\. Pell agreed/,
    withSet({}, first(full), { sheet: consent('zfs_member "old"') }),
  ],
  [
    "storage.set-erases",
    "stop",
    /was given for: nothing/,
    withSet({}, first(full), { sheet: consent("nothing") }),
  ],
  ["storage.set-erases", "stop", /does not say for what/, withSet({}, first(full), { sheet: consent(null) })],
  ["storage.set-unread", "stop", /not the same as nothing/, withSet({}, first({ contents: null }))],
  [
    "storage.set-unread",
    "caution",
    /J\. Pell agreed/,
    withSet({}, first({ contents: null }), { sheet: consent("not read") }),
  ],
  [
    "storage.set-unread",
    "stop",
    /was given for: nothing/,
    withSet({}, first({ contents: null }), { sheet: consent("nothing") }),
  ],
  [
    "storage.set-unread",
    "stop",
    /does not say for what/,
    withSet({}, first({ contents: null }), { sheet: consent(null) }),
  ],
  ["storage.set-letter", "stop", /reports neither/, withSet({}, first({ serial: null, wwn: null }))],
  [
    "storage.set-failing",
    "stop",
    /3 sectors wait/,
    withSet({}, first({ health: { passed: true, pending: 3, warnings: [] } })),
  ],
  [
    "storage.breaks-set",
    "stop",
    /from virtual drive R5, whose others are kept: bay 5/,
    withSet(
      { members: bulks(7).map((d) => d.id) },
      [...bulks(7, () => ({ memberOf: ["virtual drive R5"] })), bulk("R5", { presentedBy: "R5" })],
      {
        sheet: { "storage.leaveAlone": ["R5"] },
      },
    ),
  ],
  ["storage.set-unchecked", "caution", /1 held data/, withSet({}, first({ ...full, health: null }))],
  [
    "storage.set-share",
    "stop",
    /Four copies of one drive: you can use 0\.9\d of 4\.00 drives/,
    withSet({ type: "mirror" }, bulks(4)),
  ],
  ["storage.set-bare", "caution", /mostly cannot repair it/, withSet({ type: "stripe", groups: 7 })],
  ["storage.set-bare", "caution", /no parity\.$/, withSet({ keeper: "md", type: "0" })],
  ["storage.set-remark", "caution", /cannot be read with a chance/, withSet({ type: "raidz1" })],
  ["storage.set-odd", "note", /2\.00 TB .* stay idle/, withSet({}, first({ sizeBytes: 14_000_519_643_136 }))],
  ["storage.set-odd", "caution", /without it \d/, withSet({}, first({ sizeBytes: 8_001_563_222_016 }))],
  [
    "storage.set-odd",
    "note",
    /no set of this layout/,
    withSet({ type: "mirror" }, [bulk("CB-01"), bulk("CB-02", { sizeBytes: 14_000_519_643_136 })]),
  ],
  [
    "storage.set-hidden",
    "stop",
    /RAID controller makes/,
    withSet({}, first({ presentedBy: "virtual drive 0" })),
  ],
  ["storage.set-hidden", "stop", /in RAID mode/, withSet({}, bulks(7), controller("RAID"))],
  ["storage.set-plain", "caution", /on none that was read/, withSet(raid6)],
  [
    "storage.set-plain",
    "stop",
    /passes its drives through/,
    withSet(raid6, bulks(7), controller("pass-through")),
  ],
  [
    "storage.set-plain",
    "stop",
    /another one than the others/,
    withSet(
      raid6,
      bulks(7, (i) => (i === 6 ? {} : { controller: "5e:00.0" })),
      controller("RAID"),
    ),
  ],
  ["storage.set-special", "stop", /bear the loss of 0, its data the loss of 2/, beside({ special: 1 })],
  ["storage.set-special", "caution", /bear the loss of 1, its data the loss of 2/, beside({ special: 2 })],
  ["storage.set-log", "note", /has one log device/, beside({ logs: 1 })],
  ["storage.set-volumes", "stop", /has no name/, withSet({ volumes: [{ name: "" }] })],
  [
    "storage.set-volumes",
    "stop",
    /take more than there is/,
    withSet({ volumes: [{ name: "v", bytes: 1e15 }] }),
  ],
  [
    "storage.set-promised",
    "caution",
    /promised of .*: \d{3} %/,
    withSet({ provision: "thin", volumes: [{ name: "v", bytes: 1e14 }] }),
  ],
  [
    "storage.set-padding",
    "caution",
    /v: .* are taken for 1\.00 TB/,
    withSet({ volumes: [{ name: "v", bytes: 1e12, blockKib: 8 }] }),
  ],
  [
    "storage.set-thick",
    "note",
    /take all their space at once/,
    withSet({ keeper: "md", type: "6", use: "guests", volumes: [{ name: "v" }] }),
  ],
  ["storage.set-shingled", "stop", /from the front only/, withSet({}, first({ shingled: "host-managed" }))],
  ["storage.set-shingled", "caution", /slows down/, withSet({}, first({ shingled: "host-aware" }))],
  ["storage.set-san", "caution", /is reached over iSCSI/, withSet({}, first({ san: "iSCSI", sanPaths: 2 }))],
  ["storage.set-flash", "caution", /is a flash card/, withSet({}, first({ media: "card" }))],
  ["storage.set-flash", "caution", /is removable/, withSet({}, first({ removable: true }))],
  ["storage.set-sectors", "stop", /4,096/, withSet({}, first({ logicalSectorBytes: 4096 }))],
  ["storage.set-cache", "caution", /without a battery/, withSet({ ...raid6, cache: "write back always" })],
  ["storage.set-full", "caution", /50\.0 TB/, withSet({ dataBytes: 50e12 })],
  ["storage.set-full", "stop", /90\.0 TB/, withSet({ dataBytes: 90e12 })],
];
