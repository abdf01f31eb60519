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
    /of 100 MiB; with clusters of one sector it has 25,5\d\d/,
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
  [
    "storage.swap-pool",
    "caution",
    /and no partition for the planned swap of 4\.29 GB \(4\.00 GiB\)/,
    cut([pool], swapping("4 GiB")),
  ],
  [
    "storage.cache-memory",
    "caution",
    /The ZFS cache \(ARC\) uses up to 8\.00 GiB of 16\.0 GiB/,
    withSet({}, bulks(7), {
      facts: { memory: { installedBytes: 2 ** 34 } },
      profile: {
        zfsCache: { share: 0.5 },
        requirements: { ...aBuild().profile!.requirements, virtualisation: "required" },
      },
    }),
  ],
  [
    "storage.swap-by-hand",
    "note",
    /Cairn Hypervisor 9 creates no swap by default/,
    cut([whole], swapping("4 GiB")),
  ],
];

/** Cases of the rules about sets that are made of other drives. */
export const SET_FIRING: [code: string, severity: string, says: RegExp, changes: BuildChanges][] = [
  ["storage.set-shape", "stop", /a group has 2 drives and needs at least 3/, withSet({}, bulks(2))],
  ["storage.set-shape", "stop", /it has no name/, withSet({ name: "" })],
  ["storage.set-name", "stop", /one that exists on the drives now/, withSet({}, bulks(7), old)],
  [
    "storage.set-name",
    "stop",
    /another array or pool of this sheet/,
    withSet({}, bulks(7), {
      sheet: { "storage.sets": [1, 2].map((n) => ({ id: String(n), name: "tank", members: [`CB-0${n}`] })) },
    }),
  ],
  [
    "storage.set-keeper",
    "stop",
    /does not support this type \(pool, ZFS\)/,
    withSet({}, bulks(7), { profile: { sets: {} } }),
  ],
  [
    "storage.set-keeper",
    "stop",
    /does not support this type \(array, md\)/,
    withSet({ keeper: "md", type: "6" }, bulks(7), { profile: { sets: { ZFS: "script" } } }),
  ],
  ["storage.set-later", "note", /after this build\.$/, withSet({ later: "2026-12-20" })],
  ["storage.set-later", "caution", /and that day has passed/, withSet({ later: "2026-11-01" })],
  ["storage.set-drive", "stop", /it is the target/, withSet({ spares: ["NV-0001"] })],
  [
    "storage.set-drive",
    "stop",
    /it is protected/,
    withSet({}, bulks(7), { sheet: { "storage.leaveAlone": ["CB-01"] } }),
  ],
  ["storage.set-drive", "stop", /another array or pool uses it too/, withSet({ spares: ["CB-01"] })],
  [
    "storage.set-drive",
    "stop",
    /and it was not found at the last import/,
    withSet({}, first({ missingSince: "2026-11-01T08:00:00Z" })),
  ],
  ["storage.set-erases", "stop", /the erasure is not confirmed/, withSet({}, first(full))],
  [
    "storage.set-erases",
    "caution",
    /Pell confirmed the erasure on 20 Nov 2026/,
    withSet({}, first(full), { sheet: consent('zfs_member "old"') }),
  ],
  [
    "storage.set-erases",
    "stop",
    /it covered: nothing/,
    withSet({}, first(full), { sheet: consent("nothing") }),
  ],
  [
    "storage.set-erases",
    "stop",
    /its scope was not recorded/,
    withSet({}, first(full), { sheet: consent(null) }),
  ],
  ["storage.set-unread", "stop", /the erasure is not confirmed/, withSet({}, first({ contents: null }))],
  [
    "storage.set-unread",
    "caution",
    /Pell confirmed the erasure on 20 Nov 2026/,
    withSet({}, first({ contents: null }), { sheet: consent("not collected") }),
  ],
  [
    "storage.set-unread",
    "stop",
    /it covered: nothing/,
    withSet({}, first({ contents: null }), { sheet: consent("nothing") }),
  ],
  [
    "storage.set-unread",
    "stop",
    /its scope was not recorded/,
    withSet({}, first({ contents: null }), { sheet: consent(null) }),
  ],
  ["storage.set-letter", "stop", /reports neither/, withSet({}, first({ serial: null, wwn: null }))],
  [
    "storage.set-failing",
    "stop",
    /3 pending sectors/,
    withSet({}, first({ health: { passed: true, pending: 3, warnings: [] } })),
  ],
  [
    "storage.breaks-set",
    "stop",
    /A member is taken from virtual drive R5/,
    withSet(
      { members: bulks(7).map((d) => d.id) },
      [...bulks(7, () => ({ memberOf: ["virtual drive R5"] })), bulk("R5", { presentedBy: "R5" })],
      {
        sheet: { "storage.leaveAlone": ["R5"] },
      },
    ),
  ],
  [
    "storage.set-unchecked",
    "caution",
    /used drives without SMART data: .* \(1\)/,
    withSet({}, first({ ...full, health: null })),
  ],
  ["storage.set-share", "stop", /4 copies of one drive/, withSet({ type: "mirror" }, bulks(4))],
  ["storage.set-bare", "caution", /but usually cannot repair it/, withSet({ type: "stripe", groups: 7 })],
  [
    "storage.set-bare",
    "caution",
    /The array tank has neither copies nor parity/,
    withSet({ keeper: "md", type: "0" }),
  ],
  [
    "storage.set-remark",
    "caution",
    /the rebuild meets an unreadable sector with a probability of 37 %/,
    withSet({ type: "raidz1" }),
  ],
  [
    "storage.set-odd",
    "note",
    /With it 55\.8 TB \(50\.8 TiB\) is usable/,
    withSet({}, first({ sizeBytes: 14_000_519_643_136 })),
  ],
  ["storage.set-odd", "caution", /without it \d/, withSet({}, first({ sizeBytes: 8_001_563_222_016 }))],
  [
    "storage.set-odd",
    "note",
    /without it this layout is not possible/,
    withSet({ type: "mirror" }, [bulk("CB-01"), bulk("CB-02", { sizeBytes: 14_000_519_643_136 })]),
  ],
  [
    "storage.set-hidden",
    "stop",
    /is a virtual drive of a RAID controller/,
    withSet({}, first({ presentedBy: "virtual drive 0" })),
  ],
  ["storage.set-hidden", "stop", /in RAID mode/, withSet({}, bulks(7), controller("RAID"))],
  ["storage.set-plain", "caution", /is not attached to a known controller/, withSet(raid6)],
  ["storage.set-plain", "stop", /in pass-through mode/, withSet(raid6, bulks(7), controller("pass-through"))],
  [
    "storage.set-plain",
    "stop",
    /12\.0 TB \(10\.9 TiB\) is attached to another controller than the others/,
    withSet(
      raid6,
      bulks(7, (i) => (i === 6 ? {} : { controller: "5e:00.0" })),
      controller("RAID"),
    ),
  ],
  ["storage.set-special", "stop", /Special devices of the pool tank tolerate 0/, beside({ special: 1 })],
  ["storage.set-special", "caution", /Special devices of the pool tank tolerate 1/, beside({ special: 2 })],
  ["storage.set-log", "note", /has one log device/, beside({ logs: 1 })],
  ["storage.set-volumes", "stop", /has no name/, withSet({ volumes: [{ name: "" }] })],
  [
    "storage.set-volumes",
    "stop",
    /its volumes use more than is available/,
    withSet({ volumes: [{ name: "v", bytes: 1e15 }] }),
  ],
  [
    "storage.set-promised",
    "caution",
    /100 TB \(90\.9 TiB\) provisioned on 55\.8 TB \(50\.8 TiB\) \(179 %\)/,
    withSet({ provision: "thin", volumes: [{ name: "v", bytes: 1e14 }] }),
  ],
  [
    "storage.set-padding",
    "caution",
    /2\.03 TB \(1\.85 TiB\) used for 1\.00 TB \(931 GiB\)/,
    withSet({ volumes: [{ name: "v", bytes: 1e12, blockKib: 8 }] }),
  ],
  [
    "storage.set-thick",
    "note",
    /The volumes of the array tank allocate all their space at once/,
    withSet({ keeper: "md", type: "6", use: "guests", volumes: [{ name: "v" }] }),
  ],
  [
    "storage.set-shingled",
    "stop",
    /must be written sequentially/,
    withSet({}, first({ shingled: "host-managed" })),
  ],
  ["storage.set-shingled", "caution", /slows down/, withSet({}, first({ shingled: "host-aware" }))],
  ["storage.set-san", "caution", /is reached over iSCSI/, withSet({}, first({ san: "iSCSI", sanPaths: 2 }))],
  ["storage.set-flash", "caution", /is a flash card/, withSet({}, first({ media: "card" }))],
  ["storage.set-flash", "caution", /is removable/, withSet({}, first({ removable: true }))],
  ["storage.set-sectors", "stop", /4,096/, withSet({}, first({ logicalSectorBytes: 4096 }))],
  ["storage.set-cache", "caution", /without a battery/, withSet({ ...raid6, cache: "write back always" })],
  ["storage.set-full", "caution", /50\.0 TB/, withSet({ dataBytes: 50e12 })],
  ["storage.set-full", "stop", /90\.0 TB/, withSet({ dataBytes: 90e12 })],
];
