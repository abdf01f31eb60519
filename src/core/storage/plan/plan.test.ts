import { describe, expect, it } from "vitest";
import { aBuild, aDrive, shippedProfile } from "../../../../tests/support/builds";
import { partitionPlan, type PartitionPlan } from "./partitions";
import { SWAP_SCHOOLS, swapWanted } from "./swap";
import { cacheView } from "./cache";
import { partitionView } from "./view";

const MIB = 2 ** 20;
const GIB = 2 ** 30;
const GROUND = {
  ...{ bytes: 480_103_981_056, sectorBytes: 512, mode: "uefi" as const, memoryBytes: 64 * GIB },
  swap: SWAP_SCHOOLS[0],
};
const planOf = (profile: string, more: Partial<typeof GROUND> | object = {}): PartitionPlan =>
  partitionPlan(shippedProfile(profile).partitioning!, { ...GROUND, ...more });
const names = ({ parts }: PartitionPlan): string[] => parts.map((p) => p.name);
const part = ({ parts }: PartitionPlan, name: string) => parts.find((p) => p.name === name);

describe("what an installer makes of a drive", () => {
  it("is a root volume of 100 GiB in a group that has four times as much, and the rest idle", () => {
    const plan = planOf("saddler-linux-24");
    expect(names(plan)).toEqual(["EFI system partition", "boot", "volume group", "root"]);
    const group = part(plan, "volume group")!;
    expect(part(plan, "root")).toMatchObject({ bytes: 100 * GIB, within: "volume group" });
    // The first extent stands 1 MiB behind the beginning of the group.
    expect(part(plan, "root")!.startBytes).toBe(group.startBytes + MIB);
    expect(plan.idleBytes).toBe(Math.floor((group.bytes - MIB) / (4 * MIB)) * 4 * MIB - 100 * GIB);
    expect(part(plan, "root")!.dfBytes).toBeLessThan(100 * GIB);
    expect(plan.grow[0]).toMatch(/^lvextend/);
  });

  it("leaves no byte that it does not name: parts follow each other and end where the table does", () => {
    for (const profile of [
      "lowland-server-7",
      "millrace-12",
      "cairn-hypervisor-9",
      "sedge-bsd-14",
      "tussock-host-5",
    ])
      for (const mode of ["uefi", "legacy"] as const) {
        const plan = planOf(profile, { mode });
        const own = plan.parts.filter((p) => p.within === null);
        own.forEach((p, i) => {
          const end = (own[i + 1]?.startBytes ?? GROUND.bytes) - (p.startBytes + p.bytes);
          expect(end, `${profile} ${mode} ${p.name}`).toBeGreaterThanOrEqual(0);
          expect(end, `${profile} ${mode} ${p.name}`).toBeLessThan(3 * MIB);
        });
        expect(plan.fault, profile).toBeNull();
      }
  });

  it("follows the mode of the firmware", () => {
    expect(names(planOf("lowland-server-7", { mode: "legacy" }))[0]).toBe("BIOS boot");
    expect(names(planOf("millrace-12", { mode: "legacy" }))).toEqual(["swap", "root"]);
    expect([planOf("millrace-12", { mode: "legacy" }).table, planOf("millrace-12").table]).toEqual([
      "dos",
      "gpt",
    ]);
    expect(planOf("millrace-12", { mode: "legacy", bytes: 4e12 }).fault).toMatch(/exceeds/);
  });

  it("takes sizes by shares within their bounds", () => {
    const store = part(planOf("cairn-hypervisor-9"), "system data")!;
    expect(store.bytes).toBe(Math.ceil(GROUND.bytes / 4 / 512) * 512);
    const small = part(planOf("cairn-hypervisor-9", { bytes: 64e9 }), "system data")!;
    expect(small.bytes).toBe(20_480 * MIB);
    expect(part(planOf("cairn-hypervisor-9", { bytes: 4e12 }), "system data")!.bytes).toBe(122_880 * MIB);
    expect(part(planOf("hopper-backup-3"), "root")!.bytes / GROUND.bytes).toBeCloseTo(0.25, 5);
    expect(part(planOf("lowland-server-7"), "swap")!.bytes).toBe(16 * GIB);
    // Nobody has read the memory: the least is what can be told.
    expect(part(planOf("lowland-server-7", { memoryBytes: null }), "swap")!.bytes).toBe(2 * GIB);
  });

  it("gives the swap that the sheet wants, where the installer has a part for it", () => {
    expect(part(planOf("lowland-server-7", { swap: "half of memory" }), "swap")!.bytes).toBe(32 * GIB);
    expect(names(planOf("lowland-server-7", { swap: "none" }))).not.toContain("swap");
    expect(names(planOf("millrace-12", { swap: "none" }))).not.toContain("swap");
    expect(planOf("millrace-12", { swap: "4 GiB" }).swapBytes).toBe(4 * GIB - 4096);
    expect(planOf("saddler-linux-24", { swap: "4 GiB" })).toMatchObject({ swapBytes: 0, swapLacks: true });
    expect(planOf("saddler-linux-24", { swap: "none" }).swapLacks).toBe(false);
  });

  it("is refused for a drive that is smaller than what it wants", () =>
    expect(planOf("cairn-hypervisor-9", { bytes: 8e9 }).fault).toMatch(/longer than the disk/));
});

it("counts swap in whole GiB of the memory, and knows none where that was not read", () => {
  const all = (memory: number | null) => SWAP_SCHOOLS.map((s) => swapWanted(s, memory));
  expect(all(63.6 * GIB)).toEqual([null, 0, 4 * GIB, 32 * GIB, 64 * GIB]);
  expect(all(null)).toEqual([null, 0, 4 * GIB, null, null]);
});

it("is shown of the smallest drive of a target, and not on a road that keeps what is there", () => {
  const plan = aBuild({
    drives: [aDrive("NV-0001", { sizeBytes: 500e9 }), aDrive("NV-0002", { sizeBytes: 480e9 })],
    sheet: { "storage.layout": "mirror", "storage.partners": [{ drive: "NV-0002", role: "member" }] },
  });
  expect(partitionView(plan)).toMatchObject({ driveBytes: 480e9, drives: 2 });
  expect(partitionView({ ...plan, keepsSystem: true })).toBeNull();
  expect(partitionView(aBuild({ profile: { partitioning: null } }))).toBeNull();
  expect(partitionView(aBuild({ sheet: { "storage.target": null } }))).toBeNull();
});

describe("what the cache of ZFS takes of the memory", () => {
  const view = (zfsCache: object | null, installedBytes: number | null = 64 * GIB) =>
    cacheView(
      aBuild({
        profile: { zfsCache, partitioning: shippedProfile("tussock-host-5").partitioning },
        facts: { memory: installedBytes === null ? {} : { installedBytes } },
      }),
    );

  it("is the least of what its family bounds it by, with the working", () => {
    expect(view({ share: 0.5 })).toMatchObject({ mostBytes: 32 * GIB, leftBytes: 32 * GIB });
    expect(view({ share: 0.5, mostGib: 16 })?.mostBytes).toBe(16 * GIB);
    expect(view({ leaveGib: 1 })?.leftBytes).toBe(GIB);
    const { figure } = view({ share: 0.1, mostGib: 16 })!;
    expect(figure.formula).toBe("minimum of: 10 % of memory, 16 GiB");
    expect(figure.inputs.map((i) => [i.value, i.source])).toEqual([
      ["64.0 GiB", "imported"],
      ["6.40 GiB", "default"],
      ["16.0 GiB", "default"],
    ]);
    expect(view({ leaveGib: 1 }, GIB / 2)?.mostBytes).toBe(0);
  });

  it("is not told without the memory, the rule, or anything of ZFS", () => {
    expect(view({ share: 0.5 }, null)).toBeNull();
    expect(view(null)).toBeNull();
    expect(cacheView(aBuild({ profile: { zfsCache: { share: 0.5 } } }))).toBeNull();
  });
});
