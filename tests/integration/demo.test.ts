import { readFileSync } from "node:fs";
import { beforeAll, describe, expect, it } from "vitest";
import { buildView } from "@/server/builds";
import { importAll } from "@/server/exports";
import { find } from "@/server/find";
import { machineView } from "@/server/machines";
import { recordOf } from "@/server/runs";
import { siteView, takenAddresses } from "@/server/sites";
import { segmentPlan } from "@/core/network";
import { todayView } from "@/server/today";
import { ownDatabase } from "../support/database";
import { desk } from "../support/desk";

ownDatabase();
const DAY = 86_400_000;

beforeAll(async () => {
  const answer = await importAll(await desk(), readFileSync("demo/marrowby-water.json", "utf8"), {
    rebase: true,
  });
  expect(answer).toEqual({ ok: true, value: { builds: 7, machines: 8, pictures: 0 } });
});

const build = async (id: string) => (await buildView(await desk(), id))!;
const onMachine = async (id: string): Promise<string[]> =>
  (await machineView(await desk(), id))!.findings.map((f) => `${f.severity} ${f.code}`);

describe("the demo, moved so that now is now", () => {
  it("has one host in the middle of its installation", async () => {
    const { running, now } = await todayView(await desk());
    expect(running).toHaveLength(1);
    const [host] = running;
    expect(host).toMatchObject({
      machine: "wrk-hv1",
      status: "running",
      step: "Wait: the system is upgraded",
      position: "28 of 35",
    });
    expect(host?.hands?.late).toBe(false);
    expect(Date.parse(host?.hands?.at ?? "")).toBeGreaterThan(Date.parse(now));
    const stretches = host?.stretches ?? [];
    expect(stretches).toHaveLength(35);
    expect(stretches.filter((s) => s.past)).toHaveLength(27);
    // One after the other, without a gap backwards in time, from the past over now into what is to come.
    stretches.forEach((s, i) => {
      expect(s.to >= s.from, s.title).toBe(true);
      if (i > 0) expect(s.from >= (stretches[i - 1]?.from ?? ""), s.title).toBe(true);
    });
    expect((stretches.find((s) => !s.past)?.from ?? now) < now).toBe(true);
  });

  it("has sheets being prepared, two of them hanging at a stop that protects data or the way in, and one that waits to be armed", async () => {
    const { preparing } = await todayView(await desk());
    expect(preparing.map((p) => [p.number, p.machine, p.hook, p.stops, p.firstStop?.label])).toEqual([
      ["B-0045", "wrk-tm1", "H", 0, undefined],
      ["B-0042", "wrk-hv2", "D", 2, "D1"],
      ["B-0044", "wrk-st1", "H", 0, undefined],
      ["B-0043", "tho-a", "C", 2, "C1"],
    ]);
    expect(preparing[1]?.firstStop?.says).toMatch(/BOOTCARD-A, 64\.0 GB .*the erasure is not confirmed/);
    expect(preparing[3]?.firstStop?.says).toContain("will not boot in UEFI mode");
    for (const p of preparing) expect(p.likelySeconds).toBeGreaterThan(1800);
  });

  it("has dates that are over and dates that come, in order, each leading to its page", async () => {
    const { dates, now } = await todayView(await desk());
    const all = [...dates.over, ...dates.coming];
    expect(all.map((d) => d.date)).toEqual(all.map((d) => d.date).toSorted());
    const days = (what: string): number => {
      const found = all.find((d) => d.what === what);
      if (!found) throw new Error(`${what} is not among ${all.map((d) => d.what).join("; ")}`);
      return Math.round((Date.parse(found.date) - Date.parse(now)) / DAY);
    };
    expect(days("Restore drill: cl-bk1")).toBeLessThan(0);
    expect(days("Update of system firmware: wrk-st1")).toBeLessThan(0);
    expect(days("Scrub of the pool reservoir: wrk-st1")).toBeGreaterThan(0);
    expect(days("Evaluation ends: Install Cairn Hypervisor 9 on wrk-hv1")).toBeGreaterThan(30);
    expect(all.every((d) => /^\/(machines|builds|images)\//.test(d.href))).toBe(true);
  });

  it("finds on the next host what would lose data or clash, before the hardware is touched", async () => {
    const { evaluation } = await build("b-wrk-hv2");
    const stops = evaluation.findings.filter((f) => f.severity === "stop");
    expect(stops.map((f) => `${f.label} ${f.code}`)).toEqual(["D1 storage.holds-data", "E1 network.in-pool"]);
    expect(stops.map((f) => f.waivable)).toEqual([false, true]);
    expect(evaluation.findings.map((f) => f.code)).toEqual(
      expect.arrayContaining(["handover.evaluation", "drive.watch", "machine.hot", "storage.too-small"]),
    );
  });

  it("has a waiver with its reason on the running build, and a sheet without a stop that was handed over", async () => {
    const running = (await build("b-wrk-hv1")).evaluation.findings;
    expect(running.filter((f) => f.waiver).map((f) => f.code)).toEqual(["storage.removable"]);
    expect(running.some((f) => f.severity === "stop")).toBe(false);
    const done = await build("b-tho-b");
    expect(done.run?.endedAt).not.toBeNull();
    const record = (await recordOf(await desk(), "r-tho-b"))!;
    expect(JSON.stringify(record)).toContain("tho-b");
  });

  it("leads over a stepping stone where the boot card forces it, and converts the appliance in place", async () => {
    const hv2 = await build("b-wrk-hv2");
    expect(hv2.roads.find((r) => r.road === "fresh")?.legs).toEqual([
      { words: "install Cairn Hypervisor 6.7", through: "installer", image: "Cairn Hypervisor 6.7" },
      {
        words: "upgrade Cairn Hypervisor 9",
        through: "installer",
        image: "Cairn Hypervisor 9.0, Ostler build",
      },
    ]);
    const st1 = await build("b-wrk-st1");
    expect(st1.evaluation.steps.map((s) => s.id)).not.toContain("media-in");
    expect(st1.evaluation.steps.slice(0, 3).map((s) => s.id)).toEqual([
      "identity",
      "save-lists",
      "screen-keys",
    ]);
    expect(st1.ways).toBeNull();
    expect(st1.roads.map((r) => [r.road, r.open])).toEqual([
      ["fresh", true],
      ["upgrade", false],
      ["convert", true],
    ]);
  });

  it("has the backup server's hand-over, with what its run measured", async () => {
    expect((await recordOf(await desk(), "r-cl-bk1"))?.handedTo).toBe("Office");
    const { ways } = await build("b-tho-a");
    const stick = ways?.plans.find((p) => p.way === "stick");
    expect(stick?.figure.inputs.find((i) => i.name === "rate")).toMatchObject({ source: "measured" });
  });

  it.each([
    ["m-wrk-st1", ["caution drive.failing", "caution machine.set-degraded", "caution machine.supply"]],
    ["m-wrk-tm1", ["caution machine.not-as-delivered", "note machine.memory-unequal"]],
    ["m-cl-bk1", ["caution machine.date-over", "note drive.idle-space"]],
    ["m-cl-ws1", ["caution drive.moved-in", "note machine.defect"]],
    ["m-wrk-hv2", ["caution machine.firmware-outdated", "note machine.hot"]],
  ])("tells on %s what is the matter with it", async (id, expected) => {
    expect(await onMachine(id)).toEqual(expect.arrayContaining(expected));
  });

  it("knows who has which address on the management segment", async () => {
    const works = (await siteView(await desk(), "s-works"))!;
    expect(works.machines.map((m) => m.name)).toEqual(["wrk-hv1", "wrk-hv2", "wrk-st1", "wrk-tm1"]);
    const plan = segmentPlan(
      works.site.segments.find((s) => s.id === "works-mgmt")!,
      await takenAddresses((await desk()).db, works.site, "s-works", "10.61.10.0/24"),
    );
    const who = (address: string): string =>
      plan.find((s) => s.from === address && s.to === address)?.what ?? "";
    expect(["10.61.10.4", "10.61.10.9", "10.61.10.21", "10.61.10.30"].map(who)).toEqual([
      "wrk-sw1",
      "rack A power strip",
      expect.stringContaining("wrk-hv1"),
      expect.stringContaining("B-0044"),
    ]);
    // Every address of the segment stands in one stretch, in order, and none in two.
    expect(plan.reduce((sum, s) => sum + s.count, 0)).toBe(256);
    // Story 2: the fixed address of the second hypervisor lies inside the range, and the site says so too.
    expect(works.findings.map((f) => f.says)).toEqual(
      expect.arrayContaining([
        expect.stringMatching(/^10\.61\.10\.122 of wrk-hv2 .* is in the DHCP range of Works management/),
        expect.stringMatching(/^wrk-ps1 still uses its factory login/),
      ]),
    );
  });

  it.each([
    ["ost7k2s01", ["machine wrk-st1"]],
    ["B-0042", ["build B-0042 Install Cairn Hypervisor 9 on wrk-hv2"]],
    ["hypervisor ostler", ["image Cairn Hypervisor 9.0, Ostler build"]],
    ["no such thing", []],
    ["  ", []],
  ])("finds by part of its words: %s", async (query, expected) => {
    const { found, meant } = await find(await desk(), query, null);
    expect(found.map((f) => `${f.kind} ${f.title}`)).toEqual(expected);
    expect(meant).toBeNull();
  });

  it.each([
    ["wkr-hv2", "wrk-hv2", "machine wrk-hv2"],
    ["managment works", "management works", "segment Works management"],
    ["tusock", "tussock", "profile Tussock Host 5"],
  ])("takes %s for a slip of what is there", async (query, meant, first) => {
    const answer = await find(await desk(), query, null);
    expect(answer.meant).toBe(meant);
    expect(answer.found.map((f) => `${f.kind} ${f.title}`)).toContain(first);
  });

  it("explains an address that is typed, and takes none for a slip of another", async () => {
    const ask = async (query: string) => (await find(await desk(), query, null)).explained;
    const [kind, place] = await ask("10.61.10.122/24");
    expect(kind).toMatch(/^Type: private/);
    expect(place).toBe(
      "Works, Works management (10.61.10.0/24): planned, wrk-hv2 (B-0042), but inside a DHCP range.",
    );
    expect((await ask("10.61.10.200"))[1]).toContain("not in use by any plan");
    expect((await ask("fe80::61:aff:fe00:1501%eno1"))[1]).toBe(
      "Derived from the MAC 02:61:0a:00:15:01, a port of wrk-hv2.",
    );
    expect((await ask("169.254.9.9"))[0]).toContain("no DHCP server responded");
    expect(await ask("wrk-hv2")).toEqual([]);
    const { found, meant } = await find(await desk(), "10.61.10.201", null);
    expect([found.map((f) => f.href), meant]).toEqual([["/sites/s-works"], null]);
    // An address that stands nowhere leads to the machine of whose MAC it was made.
    const made = await find(await desk(), "fe80::61:aff:fe00:1501", null);
    expect(made.found).toMatchObject([{ kind: "machine", title: "wrk-hv2", href: "/machines/m-wrk-hv2" }]);
    const thing = await find(await desk(), "wrk-sw1", null);
    expect(thing.found).toMatchObject([{ kind: "thing", href: "/sites/s-works/wiring" }]);
  });

  it("finds segments, dates and the zones of the open sheet", async () => {
    const kinds = async (query: string) =>
      (await find(await desk(), query, "b-tho-a")).found.map((f) => `${f.kind} ${f.title}`);
    expect(await kinds("10.61.10.0")).toContain("segment Works management");
    expect(
      (await kinds("drill")).filter((t) => /^date \d{4}-\d\d-\d\d .*drill/i.test(t)).length,
    ).toBeGreaterThan(0);
    expect((await kinds("zone d"))[0]).toBe("zone D Storage");
    expect((await kinds("zone k"))[0]).toBe("zone K Hand over");
    expect(await kinds("storage")).toContain("zone D Storage");
  });

  it("finds findings and steps of the open sheet first", async () => {
    const { found } = await find(await desk(), "d1", "b-tho-a");
    expect(found[0]).toMatchObject({ kind: "finding", title: "D1 Target holds data" });
    const { found: steps } = await find(await desk(), "disk", "b-tho-a");
    expect(steps.some((f) => f.kind === "step" && f.title === "Choose the disk to install on")).toBe(true);
  });
});
