import { describe, expect, it } from "vitest";
import { bulks } from "../../../../tests/support/firing-sets";
import { physicalVolume, thinMetadata, thinPool } from "../lvm";
import { thickReservation } from "../zfs";
import { setFigures, shapesOf, type SetFigures } from "./figures";
import { plannedSetSchema, type PlannedSet } from "./planned";
import { stripeOf, volumesOf, type VolumesView } from "./volumes";

const drives = bulks(6);
const planned = (changes: object): PlannedSet =>
  plannedSetSchema.parse({ id: "1", name: "tank", members: drives.map((d) => d.id), ...changes });
const figures = (set: PlannedSet): SetFigures => {
  const read = setFigures(set, (id) => drives.find((d) => d.id === id));
  if (!read.ok) throw new Error(read.problems[0]!.message);
  return read.value;
};
const view = (changes: object): VolumesView => {
  const set = planned(changes);
  return volumesOf(set, figures(set))!;
};
const TB = 1e12;
const EXTENT = 4 * 2 ** 20;

describe("volumes of a pool", () => {
  const set = planned({ volumes: [{ name: "guests", bytes: TB + 1, blockKib: 8 }] });

  it("are whole blocks, and take what the pool's tool reserves for them", () => {
    const { volumes, takenBytes, roomBytes } = volumesOf(set, figures(set))!;
    const promised = Math.ceil((TB + 1) / 8192) * 8192;
    expect(volumes).toEqual([
      {
        ...{ name: "guests", promisedBytes: promised, dfBytes: null },
        takesBytes: thickReservation(shapesOf(figures(set)), promised, 8192),
      },
    ]);
    // Two sectors of data on six drives with two of parity take two more, and round up to a multiple of three.
    expect(takenBytes / promised).toBeGreaterThan(1.9);
    expect(roomBytes).toBe(figures(set).candidate.usableBytes);
  });

  it("take nothing at once when they are thin, and file systems take what is in them", () => {
    const thin = view({ provision: "thin", volumes: [{ name: "a", bytes: 9 * TB }, { name: "b" }] });
    expect(thin.volumes.map((v) => [v.takesBytes, v.promisedBytes])).toEqual([
      [0, Math.ceil((9 * TB) / 16384) * 16384],
      [0, null],
    ]);
    expect([thin.takenBytes, thin.fault]).toEqual([0, null]);
  });

  it("say why they cannot be made", () => {
    const fault = (...volumes: object[]) => view({ volumes }).fault;
    expect(fault({ name: "a" }, { name: "a" })).toBe('two of its volumes have the name "a"');
    expect(fault({ name: "a b" })).toMatch(/is not a valid volume name/);
    expect(fault({ name: "" })).toMatch(/has no name/);
    expect(fault({ name: "a", bytes: 40 * TB }, { name: "b", bytes: 40 * TB })).toMatch(
      /its volumes use more than is available/,
    );
    expect(fault({ name: "a" }, { name: "b" })).toBeNull();
  });
});

describe("logical volumes on an array", () => {
  const md = { keeper: "md", type: "6" };
  const room = (stripe: number): number => {
    const { usableBytes } = figures(planned(md)).candidate;
    return physicalVolume(usableBytes, stripe).extents * EXTENT;
  };

  it("begin at a whole stripe, are whole extents, and the one without a size takes what is left", () => {
    const stripe = 4 * 512 * 1024;
    expect(stripeOf(planned(md))).toEqual({ unitBytes: 512 * 1024, members: 4 });
    const found = view({
      ...md,
      volumes: [
        { name: "rest", fs: "xfs" },
        { name: "a", bytes: TB, fs: "ext4" },
      ],
    });
    const a = Math.ceil(TB / EXTENT) * EXTENT;
    expect(found.volumes.map((v) => v.promisedBytes)).toEqual([room(stripe) - a, a]);
    expect([found.takenBytes, found.roomBytes, found.fault]).toEqual([room(stripe), room(stripe), null]);
    for (const v of found.volumes) {
      expect(v.dfBytes).toBeLessThan(v.promisedBytes!);
      expect(v.dfBytes! / v.promisedBytes!).toBeGreaterThan(0.97);
    }
  });

  it("share a thin pool beside two copies of its metadata", () => {
    const found = view({ ...md, provision: "thin", volumes: [{ name: "a", bytes: 99 * TB }] });
    const pool = thinPool(room(4 * 512 * 1024) / EXTENT);
    expect([found.thin, found.roomBytes, found.takenBytes]).toEqual([
      { ...pool, needs: thinMetadata(pool.data, pool.chunk, 1) },
      pool.data,
      0,
    ]);
    expect(found.thin!.needs).toBeLessThan(pool.metadata);
    expect(found.promisedBytes).toBeGreaterThan(found.roomBytes);
    expect(found.fault).toBeNull();
  });

  it("say why they cannot be made", () => {
    const fault = (...volumes: object[]) => view({ ...md, volumes }).fault;
    expect(fault({ name: "a" }, { name: "b" })).toMatch(/two of its volumes use all remaining space/);
    expect(fault({ name: "a", bytes: 90 * TB })).toMatch(/its volumes use more than is available/);
    expect(fault({ name: "a", bytes: room(4 * 512 * 1024) }, { name: "b" })).toMatch(
      /no space is left for one of its volumes/,
    );
    expect(fault({ name: "a", bytes: 2 ** 20, fs: "xfs" })).toBe('"a" is too small for XFS');
    expect(fault({ name: "a", bytes: 100 * 2 ** 20, fs: "btrfs" })).toBe('"a" is too small for Btrfs');
    expect(fault({ name: "a", bytes: 2 ** 30, fs: "btrfs" })).toBeNull();
    expect(fault({ name: "snapshot1" })).toMatch(/is not a valid volume name/);
  });

  it("have no stripe where copies only are kept", () => {
    expect(stripeOf(planned({ keeper: "md", type: "1" }))).toBeNull();
    expect(stripeOf(planned({ keeper: "md", type: "10", stripeKib: 64 }))?.members).toBe(3);
    expect(stripeOf(planned({ keeper: "RAID controller", type: "6" }))).toBeNull();
  });

  it("have stripes over all members of a RAID10 whose copies do not come out even", () => {
    const five = planned({ keeper: "md", type: "10" }).members.slice(0, 5);
    expect(stripeOf(planned({ keeper: "md", type: "10", members: five }))?.members).toBe(5);
  });
});
