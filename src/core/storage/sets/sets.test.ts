import { describe, expect, it } from "vitest";
import { naming, sees } from "../../../../tests/support/steps";
import { aBuild } from "../../../../tests/support/builds";
import { bulk, bulks, withSet } from "../../../../tests/support/firing-sets";
import { searchOver } from "../bench";
import { STORAGE_CHECKS } from "../checks";
import { setScript } from "../commands";
import { erasedDrives } from "../ground";
import { consentViews } from "../signing";
import { setSteps } from "../steps/sets";
import { withFate, withNewSet, withoutSet, withSeat, withSetLayout } from "../fates";
import { dispositionOf } from "../guard";
import { inLayout, newSet } from "./change";
import { setFigures } from "./figures";
import { layoutOf, nameFault } from "./layout";
import { plannedSetSchema, type PlannedSet } from "./planned";
import { setViews } from "./view";

const set = (changes: object): PlannedSet => plannedSetSchema.parse({ id: "1", name: "tank", ...changes });
const ids = (n: number): string[] => Array.from({ length: n }, (_, i) => `CB-0${i + 1}`);
const PLAN = {
  ...{
    target: "NV-0001",
    partners: [],
    layout: "single drive" as const,
    leaveAlone: ["CB-01"],
    free: ["CB-02"],
  },
  sets: [set({ members: ["CB-03", "CB-04"], spares: ["CB-05"] })],
};

describe("the layout of a planned set", () => {
  it.each<[string, object, RegExp]>([
    ["no drives", {}, /no drives/],
    [
      "groups of unequal width",
      { members: ids(7), groups: 2 },
      /7 drives cannot form 2 groups of equal width/,
    ],
    [
      "two groups of a level that has one",
      { keeper: "md", type: "6", members: ids(8), groups: 2 },
      /md supports one group of RAID6/,
    ],
    [
      "a span of one",
      { keeper: "RAID controller", type: "60", members: ids(8) },
      /RAID60 needs at least two groups/,
    ],
    ["a pool's kind by md", { keeper: "md", type: "raidz2", members: ids(6) }, /md does not support raidz2/],
    [
      "a level that md lacks",
      { keeper: "md", type: "60", members: ids(8), groups: 2 },
      /md does not support RAID60/,
    ],
    ["a level by ZFS", { type: "5", members: ids(5) }, /ZFS does not support RAID5/],
    ["an odd RAID10", { keeper: "RAID controller", type: "10", members: ids(5) }, /even number/],
    [
      "a log beside an array",
      { keeper: "md", type: "6", members: ids(6), logs: ["L"] },
      /md does not support special/,
    ],
    [
      "wide single drives",
      { type: "stripe", members: ids(4), groups: 2 },
      /single drives are groups of one drive each/,
    ],
    [
      "more spares inside than drives",
      { type: "draid2", members: ids(5), data: 4, distributed: 1 },
      /a group has 5 drives and needs at least 7/,
    ],
  ])("is refused with %s", (_, changes, says) => {
    const read = layoutOf(set(changes));
    expect(read.ok ? "" : read.problems[0]!.message).toMatch(says);
  });

  it("deals members into groups in their order, and puts spares behind them", () => {
    const read = layoutOf(set({ type: "mirror", members: ids(4), groups: 2, spares: ["S"] }));
    expect(read).toMatchObject({
      ok: true,
      value: {
        groups: [
          [0, 1],
          [2, 3],
        ],
        spares: [4],
      },
    });
  });

  it.each([
    ["ZFS", "tank", null],
    ["ZFS", "mirror-1", /is not a pool name/],
    ["ZFS", "c0", /is not a pool name/],
    ["ZFS", "9lives", /is not a pool name/],
    ["md", "data/0", /"data\/0" is not an array name/],
    ["RAID controller", "more than fifteen", /"more than fifteen" is not a virtual drive name/],
    ["md", "", /no name/],
  ] as const)("of %s takes the name %j, or says why not", (keeper, name, says) => {
    const fault = nameFault({ keeper, name });
    if (says === null) expect(fault).toBeNull();
    else expect(fault).toMatch(says);
  });
});

describe("what becomes of drives", () => {
  it("puts a drive in one place only", () => {
    const seated = withSeat(PLAN, "CB-01", "1", "member");
    expect(seated.sets[0]!.members).toEqual(["CB-03", "CB-04", "CB-01"]);
    expect([seated.leaveAlone, seated.free]).toEqual([[], ["CB-02"]]);
    const asTarget = withFate(seated, "CB-03", "target");
    expect([asTarget.target, asTarget.sets[0]!.members]).toEqual(["CB-03", ["CB-04", "CB-01"]]);
    // The target that was exchanged is not touched any more.
    expect(asTarget.leaveAlone).toContain("NV-0001");
    const spare = withSeat(PLAN, "CB-04", "1", "spare");
    expect(spare.sets[0]).toMatchObject({ members: ["CB-03"], spares: ["CB-05", "CB-04"] });
    expect(withSeat(PLAN, "NV-0001", "1", "member").target).toBeNull();
  });

  it("keeps the place of a member that is named again", () =>
    expect(withSeat(PLAN, "CB-03", "1", "member").sets[0]!.members).toEqual(["CB-03", "CB-04"]));

  it("makes a new set of drives, which leave what they were for", () => {
    const next = withNewSet(PLAN, ["CB-01", "CB-02", "CB-05"], ["tank"]);
    expect(next.sets[1]).toMatchObject({
      id: "2",
      name: "store",
      type: "raidz1",
      members: ["CB-01", "CB-02", "CB-05"],
    });
    expect([next.leaveAlone, next.free, next.sets[0]!.spares, next.target]).toEqual([[], [], [], "NV-0001"]);
  });

  it("leaves the drives of a set alone once it is not made", () => {
    const gone = withoutSet(PLAN, "1");
    expect(gone.sets).toEqual([]);
    expect(["CB-03", "CB-04", "CB-05"].map((id) => dispositionOf({ id }, gone))).toEqual(
      Array(3).fill("leave alone"),
    );
  });

  it("frees what a layout leaves out", () => {
    const drives = ["CB-03", "CB-04", "CB-05"];
    const layout = {
      ...{ kind: { school: "ZFS", type: "mirror" } as const, groups: [[2, 0]], spares: [], left: [1] },
      ...{ data: 0, distributed: 0 },
    };
    const next = withSetLayout(PLAN, "1", layout, drives);
    expect(next.sets[0]).toMatchObject({ type: "mirror", members: ["CB-05", "CB-03"], spares: [] });
    expect(next.free).toEqual(["CB-02", "CB-04"]);
  });
});

it("takes over every layout that the bench finds, with the figures that the bench gave", () => {
  const drives = bulks(11);
  const question = {
    ...({ drives: "", media: "spinning", sector: 512, use: "bulk files", survive: 0, least: null } as const),
    ...({ spares: 1, free: 0, full: 80, replace: 24, afr: null, school: "any", coercion: "none" } as const),
  };
  const found = searchOver(
    drives.map((d) => d.sizeBytes),
    question,
  );
  if (!found.ok) throw new Error(found.problems[0]!.message);
  expect(found.value.candidates.length).toBeGreaterThan(25);
  const named = drives.map((d) => d.id);
  for (const { layout, name, usableBytes, loss } of found.value.candidates) {
    const taken = inLayout(newSet([], named), layout, named);
    const own = setFigures(taken, (id) => drives.find((d) => d.id === id));
    expect(own.ok, `${name}: ${own.ok ? "" : own.problems[0]!.message}`).toBe(true);
    if (own.ok)
      expect([own.value.candidate.usableBytes, own.value.candidate.loss], name).toEqual([usableBytes, loss]);
  }
});

it("names new sets apart, with as much parity as their drives bear", () => {
  const one = newSet([], ids(6), ["tank"]);
  expect(one).toMatchObject({ id: "1", name: "store", type: "raidz2" });
  expect(newSet([one], ids(3))).toMatchObject({ id: "2", name: "tank", type: "raidz1" });
  expect([newSet([], ids(2)).type, newSet([], ids(1)).type, newSet([], []).type]).toEqual([
    "mirror",
    "stripe",
    "stripe",
  ]);
});

it("shows a set by its bays and groups, and says so where its drives make none", () => {
  const drives = [bulk("CB-01"), bulk("CB-02"), bulk("CB-03"), bulk("CB-04"), bulk("CB-05")];
  const planned = { type: "mirror", groups: 2, members: ids(4), spares: ["CB-05"] };
  const [shown] = setViews(aBuild(withSet(planned, drives)));
  expect(shown?.seats.map((s) => [s.place, s.group])).toEqual([
    ["bay 1", 0],
    ["bay 2", 0],
    ["bay 3", 1],
    ["bay 4", 1],
    ["bay 5", null],
  ]);
  expect(shown).toMatchObject({ layout: "2 × mirror of 2, 1 spare", worst: 1, fault: null });
  expect(shown?.bench).toContain("drives=5x12000138625024");
  expect(setViews(aBuild(withSet({ groups: 2 })))[0]).toMatchObject({
    fault: "7 drives cannot form 2 groups of equal width",
    ladder: [],
  });
});

it("of a set that is left for later writes nothing, asks for nothing, and calls for its day", () => {
  const holding = { contents: [{ part: "p1", sizeBytes: 9, kind: "ext4", label: null, mountedAt: [] }] };
  const plan = aBuild(
    withSet(
      { later: "2026-12-20" },
      bulks(6, () => holding),
      { profile: { sets: { ZFS: "script" } } },
    ),
  );
  expect(erasedDrives(plan).map((d) => d.id)).toEqual(["NV-0001"]);
  expect(consentViews(plan)).toEqual([]);
  expect(setSteps(plan)).toEqual([]);
  const script = setScript(plan, plan.sheet.storage.sets[0]!, "B-1");
  expect(script.ok ? "" : script.problems[0]!.message).toMatch(/is planned for 2026-12-20/);
});

it("may have the name of a pool whose drives are all erased for it, and of no other", () => {
  const old = (drives: string[]) => ({
    facts: {
      sets: [
        {
          ...{ id: "pool tank", kind: "pool" as const, name: "tank", level: "mirror", state: "ONLINE" },
          ...{ health: "good" as const, sizeBytes: null, wwn: null, progress: null, remark: null },
          members: drives.map((drive) => ({
            ...{ name: drive, drive, role: "member" as const, group: null, state: "ONLINE" },
          })),
        },
      ],
    },
  });
  const codes = (drives: string[]): string[] =>
    STORAGE_CHECKS.filter((c) => c.code === "storage.set-name").flatMap((c) =>
      c.run(aBuild(withSet({}, bulks(6), old(drives)))).map(() => c.code),
    );
  expect(codes(["CB-01", "CB-02"])).toEqual([]);
  expect(codes(["CB-01", "NV-0009"])).toEqual(["storage.set-name"]);
  expect(codes([])).toEqual(["storage.set-name"]);
});

describe("what stands beside the data of a pool", () => {
  it("is in one place only, and free again when the set goes", () => {
    const withLog = withSeat(PLAN, "CB-02", "1", "log");
    expect(withLog.sets[0]).toMatchObject({
      members: ["CB-03", "CB-04"],
      spares: ["CB-05"],
      logs: ["CB-02"],
    });
    expect(withLog.free).toEqual([]);
    const asSpecial = withSeat(withLog, "CB-02", "1", "special");
    expect(asSpecial.sets[0]).toMatchObject({ logs: [], special: ["CB-02"] });
    expect(dispositionOf({ id: "CB-02" }, asSpecial)).toBe("set");
    expect(withoutSet(asSpecial, "1").leaveAlone).toEqual(expect.arrayContaining(["CB-02", "CB-05"]));
  });

  it("adds nothing to what can be used, and a special mirror its own size to what the pool tells", () => {
    const drives = bulks(8);
    const of = (more: object) => {
      const read = setFigures(set({ members: ids(6), ...more }), (id) => drives.find((d) => d.id === id));
      return read.ok ? read.value : null;
    };
    const [plain, special] = [of({})!, of({ special: ["CB-07", "CB-08"] })!];
    expect(special.candidate.usableBytes).toBe(plain.candidate.usableBytes);
    const added = special.toldBytes - plain.toldBytes;
    expect(added / drives[6]!.sizeBytes).toBeGreaterThan(0.99);
    expect(added).toBeLessThan(drives[6]!.sizeBytes);
    const log = of({ logs: ["CB-07"], caches: ["CB-08"] })!;
    expect([log.toldBytes, log.loss]).toEqual([plain.toldBytes, plain.candidate.loss]);
    // With its special devices the pool is lost: one alone fails in some 7 of 100 cases within five years.
    expect(special.loss).toBeGreaterThan(plain.loss);
    expect(of({ special: ["CB-07"] })!.loss).toBeCloseTo(1 - (1 - plain.loss) * 0.985 ** 5, 4);
  });

  it("is erased, guarded and told in the steps like the data", () => {
    const drives = bulks(8, (i) =>
      i > 5 ? { contents: [{ part: "p", sizeBytes: 9, kind: "ext4", label: null, mountedAt: [] }] } : {},
    );
    const plan = aBuild(
      withSet(
        {
          members: ids(6),
          special: ["CB-07", "CB-08"],
          volumes: [{ name: "vol", bytes: 1e12 }, { name: "files" }],
        },
        drives,
      ),
    );
    expect(erasedDrives(plan).map((d) => d.id)).toEqual(expect.arrayContaining(["CB-07", "CB-08"]));
    expect(consentViews(plan).map((c) => c.drive)).toEqual(["CB-07", "CB-08"]);
    const [guard, make] = setSteps(plan);
    expect(naming(guard)?.drives.map((d) => d.id)).toEqual(ids(8));
    const told = make!.do.join(" ");
    expect(told).toMatch(/Special devices, mirrored: bay 7, bay 8\./);
    expect(told).toMatch(/vol: thick volume in it, 1\.00 TB .*files: a file system in it/);
    const [view] = setViews(plan);
    expect(view!.sentence).toMatch(/without the last one the pool is lost/);
    expect(view!.seats.map((s) => s.id)).toEqual(ids(6));
    expect(view!.helpers.map((h) => [h.id, h.role])).toEqual([
      ["CB-07", "special"],
      ["CB-08", "special"],
    ]);
  });

  it("is told in the steps without a character of a serial, which the guard before asks for", () => {
    const drives = bulks(8, () => ({ bay: null }));
    const plan = aBuild(withSet({ members: ids(6), special: ["CB-07"], logs: ["CB-08"] }, drives));
    const told = JSON.stringify(setSteps(plan).map((s) => [s.title, s.do, sees(s)]));
    expect(told).toContain("was sd-");
    for (const { serial } of drives) expect(told.replaceAll(`was sd-${serial}`, "")).not.toContain(serial);
  });
});
