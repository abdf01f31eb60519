import { createClient } from "@libsql/client";
import { beforeAll, describe, expect, it } from "vitest";
import { claimsAskedBy, derive, evaluateSheet, markOf, sheetClaims } from "@/core/sheet";
import { judgeSite, siteClaims, siteFindings } from "@/core/site";
import { machineClaims, rivalsAmong, type Claim, type Held } from "@/core/claims";
import { matchNotes } from "@/core/compat";
import { buildRows, claimRows, compatRows, machineRows, siteRows } from "@/db";
import { buildView, createBuild } from "@/server/builds";
import { saveEdits } from "@/server/sheet-acts";
import { notesWithMachines } from "@/server/compat";
import { sourcesOfAll } from "@/server/sources";
import { closeDatabase, database } from "@/server/database";
import { importAll } from "@/server/exports";
import { find } from "@/server/find";
import { keptMark } from "@/server/marks";
import { cloneMachine } from "@/server/machines";
import { todayView } from "@/server/today";
import { ownDatabase } from "../support/database";
import { exportAll } from "../support/whole";
import { seeded } from "../support/random";
import { desk } from "../support/desk";
import { siteCheck } from "@/server/site-check";
import { MACHINE, SITE } from "@/server/written";
import { write } from "../support/written";

const { url } = ownDatabase();
const by = "J. Pell";

// What is kept beside the documents (claims, marks) against what the documents say, after changes without a plan.
const random = seeded(9);
const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!;
const day = (): string => `2026-1${Math.floor(random() * 3)}-${10 + Math.floor(random() * 18)}`;
const ADDRESSES = ["10.61.10.77", "10.61.10.20", "93.184.10.20", "fd61::2", "FD61:0::2", "", "no address"];
const NAMES = ["wrk-hv1", "WRK-HV1", "wrk-hv1.marrowby.example", "tho-b", "", "new-1"];

type Change = [path: string, after: () => unknown];
const SHEET: Change[] = [
  ["network.address", () => pick(ADDRESSES)],
  ["network.school", () => pick(["fixed", "reserved", "dynamic"])],
  ["network.fixedBy", () => pick([null, day()])],
  ["network.interfaces", () => bond(pick(["", "10.61.10.78", "10.61.10.20"]))],
  ["network.services", () => door(pick([null, day()]))],
  ["answers.hostName", () => pick(NAMES)],
  ["answers.domain", () => pick(["", "marrowby.example"])],
  ["handOver.evaluationEnds", () => pick([null, day()])],
  ["handOver.licence", () => pick(["licensed", "evaluation"])],
  ["subject", () => `Subject ${Math.floor(random() * 9)}`],
];

const bond = (address: string) => [
  {
    ...{ kind: "port", name: "lan0", on: ["02:61:0a:00:14:02"], segment: null, mtu: null, address },
  },
];
const door = (until: string | null) => [
  { ...{ name: "SSH", protocol: "tcp", port: 22, from: ["outside"], manages: true, until } },
];

async function changeSite(): Promise<void> {
  const { db } = await database();
  const row = pick(await siteRows.all(db));
  const [first, ...more] = row.site.segments;
  const { devices } = row.site;
  await write(await desk(), SITE, row.id, row.version, {
    segments: [
      {
        ...first!,
        vlan: pick([10, 30, null]),
        reservations: [{ mac: pick(MACS), address: pick(["10.61.10.77", "10.61.10.21"]), name: "x" }],
      },
      ...more,
    ],
    devices: devices.map((d, i) => (i === 0 ? { ...d, logIn: pick(["default", "changed"]) } : d)),
  });
}
const MACS = ["02:61:0a:00:14:01", "02:61:14:00:00:01", "02:00:00:00:00:99"];

async function changeOne(): Promise<void> {
  const { db } = await database();
  if (random() < 0.2) return changeSite();
  if (random() < 0.25) {
    const machine = pick(await machineRows.all(db));
    const dates = random() < 0.5 ? [] : [{ id: "d1", what: "Scrub", due: day(), doneOn: null, by }];
    await write(await desk(), MACHINE, machine.id, machine.version, {
      "typed.circuit": pick(["", "A1", "B2"]),
      "typed.dates": dates,
    });
    return;
  }
  const build = pick(await buildRows.all(db));
  const machines = await machineRows.named(db);
  const [path, after] = pick<Change>([...SHEET, ["machine.id", () => pick(machines).id]]);
  await saveEdits(await desk(), build.id, build.version, [{ path, before: null, after: after() }]);
}

const words = (claims: readonly Claim[]) => claims.map((c) => `${c.kind} ${c.key}`).sort();

/** All that is held, read from the documents themselves. */
async function scanned(): Promise<Held[]> {
  const { db } = await database();
  const machines = await machineRows.all(db);
  const builds = (await buildRows.all(db)).sort((a, b) => (a.number < b.number ? 1 : -1));
  const of = (id: string | null) => machines.find((m) => m.id === id);
  return [
    ...machines.flatMap((m) =>
      machineClaims(m.document, m.name).map((c): Held => ({
        ...{ ...c, owner: "machine", ownerId: m.id, machineId: m.id, machine: m.name },
        ...{ siteId: m.siteId, number: null },
      })),
    ),
    ...builds.flatMap((b) =>
      sheetClaims(b.sheet, b.number).map((c): Held => {
        const m = of(b.sheet.machine.id);
        return {
          ...{ ...c, owner: "build", ownerId: b.id, machineId: m?.id ?? null, machine: m?.name ?? null },
          ...{ siteId: m?.siteId ?? null, number: b.number },
        };
      }),
    ),
  ];
}

beforeAll(async () => {
  const { readFileSync } = await import("node:fs");
  const demo = readFileSync("demo/marrowby-water.json", "utf8");
  expect((await importAll(await desk(), demo, { rebase: true })).ok).toBe(true);
  await cloneMachine(await desk(), "m-wrk-hv1", "twin-1");
  for (const machine of ["m-wrk-hv1", "m-tho-b", null]) await createBuild(await desk(), machine);
});

const told = (findings: readonly { key: string; says: string }[]) =>
  findings.map((f) => `${f.key}: ${f.says}`);

describe("after sixty changes", () => {
  beforeAll(async () => {
    const { db } = await database();
    const sites = await siteRows.all(db);
    for (let i = 0; i < 60; i += 1) {
      await changeOne();
      // Asked after some of them, so that its answer is made of the one before and of what has changed since.
      if (i % 3 === 0) for (const { id } of sites) await siteCheck(await desk(), id);
    }
  });

  it("what is told of a whole site is what its claims say when they are all read anew", async () => {
    const { db } = await database();
    const sites = await siteRows.all(db);
    let count = 0;
    for (const { id, site } of sites) {
      const anew = siteFindings(judgeSite(await claimRows.claimsAtSite(db, id)));
      const kept = await siteCheck(await desk(), id);
      const bare = (f: { key: string; says: string }[]) =>
        told(f)
          .map((t) => t.replace(/ and | in use by .*| is that of .*/g, " "))
          .sort();
      expect(bare(kept), site.name).toEqual(bare(anew));
      count += kept.length;
    }
    expect(count).toBeGreaterThan(0);
  });

  it("the table holds what sites claim", async () => {
    const { db } = await database();
    for (const { id, site } of await siteRows.all(db))
      expect(words(await claimRows.ofOwner(db, "site", id))).toEqual(words(siteClaims(site)));
  });

  it("the table holds the claims that the documents make, no more and no fewer", async () => {
    const { db } = await database();
    const all = await scanned();
    expect(all.some((c) => c.kind === "door")).toBe(true);
    for (const kind of new Set(all.map((c) => c.kind))) {
      const own = all.filter((c) => c.kind === kind);
      const keys = [...new Set(own.map((c) => c.key))];
      expect(words(await claimRows.keysOf(db, [kind]))).toEqual(words(keys.map((key) => ({ kind, key }))));
      const held = await claimRows.holders(db, own);
      const line = (h: Held) =>
        [h.key, h.owner, h.ownerId, h.machineId, h.machine, h.siteId, h.number].join("|");
      expect(held.map(line).sort(), kind).toEqual(own.map(line).sort());
    }
  });

  it("every sheet meets those rivals that a scan of all documents finds", async () => {
    const { db } = await database();
    const all = await scanned();
    const builds = await buildRows.all(db);
    const sources = await sourcesOfAll(await desk(), builds);
    const machines = await machineRows.all(db);
    builds.forEach((b, i) => {
      const machine = machines.find((m) => m.id === b.sheet.machine.id);
      const asked = claimsAskedBy(b.sheet, machine?.document ?? null);
      const asking = { buildId: b.id, machineId: machine?.id ?? null, siteId: machine?.siteId ?? null };
      const line = (r: object) => JSON.stringify(r);
      expect(sources[i]!.rivals.map(line).sort(), b.number).toEqual(
        rivalsAmong(all, asked, asking).map(line).sort(),
      );
    });
  });

  it("kept marks are what is computed, and Today and the sheets say the same", async () => {
    const { db } = await database();
    const builds = await buildRows.all(db);
    for (const pass of [1, 2]) {
      const sources = await sourcesOfAll(await desk(), builds);
      builds.forEach((b, i) =>
        expect(keptMark(b.id, sources[i]!), `${b.number}, pass ${pass}`).toEqual(
          markOf(evaluateSheet(derive(sources[i]!))),
        ),
      );
    }
    for (const p of (await todayView(await desk())).preparing)
      expect((await buildView(await desk(), p.id))!.evaluation.stops.length, p.number).toBe(p.stops);
  });

  it("a mark follows a change of the machine, the site, and another's claim", async () => {
    const { db } = await database();
    const stops = async () => (await todayView(await desk())).preparing.find((p) => p.id === own)?.stops;
    const own = await createBuild(await desk(), "m-wrk-hv2");
    const other = await createBuild(await desk(), "m-tho-b");
    const set = async (id: string, path: string, after: unknown) =>
      saveEdits(await desk(), id, (await buildRows.one(db, id))!.version, [{ path, before: null, after }]);
    await set(own, "answers.hostName", "one-of-a-kind.marrowby.example");
    const before = await stops();
    await set(own, "answers.hostName", "one-of-a-kind");
    const alone = await stops();
    await set(own, "answers.domain", "marrowby.example");
    await set(other, "answers.hostName", "one-of-a-kind.marrowby.example");
    expect([before! > alone!, await stops()]).toEqual([true, alone! + 1]);
  });

  it("notes of compatibility name the machines that a scan finds", async () => {
    const { db } = await database();
    const machines = await machineRows.all(db);
    for (const { id, machines: named } of await notesWithMachines(await desk())) {
      const { note } = (await compatRows.one(db, id))!;
      const holding = machines.filter(
        (m) => matchNotes([note], m.document.facts, note.profile, note.version).length > 0,
      );
      expect(named, note.subject.value).toEqual(holding.map((m) => m.name).sort());
    }
  });

  it("finds a sheet by words of its own and of its machine together", async () => {
    const { db } = await database();
    const build = (await buildRows.all(db)).find((b) => b.sheet.machine.id && b.sheet.subject)!;
    const machine = (await machineRows.one(db, build.sheet.machine.id!))!.name;
    const { found } = await find(await desk(), `${machine} ${build.number} ${build.sheet.subject}`, null);
    expect(
      found.map((f) => f.href).some((href) => href.endsWith(build.id) || href.startsWith("/runs/")),
    ).toBe(true);
    expect((await find(await desk(), `${machine} ${build.number} nowhere%`, null)).found).toEqual([]);
  });

  it("claims that were lost are made anew at the start, and the documents stay as they are", async () => {
    if (process.env.DERRICK_TEST_DELAY !== undefined) return;
    const documents = async () => ({ ...(await exportAll()), exportedAt: "" });
    const before = { all: await documents(), addresses: await addresses() };
    await closeDatabase();
    const client = createClient({ url });
    await client.executeMultiple(
      "DELETE FROM claims; UPDATE projections SET version = 0; UPDATE machines SET summary = '{}'",
    );
    client.close();
    expect(await addresses()).toEqual(before.addresses);
    expect(await documents()).toEqual(before.all);
  });

  const addresses = async () => {
    const { db } = await database();
    const [site] = await siteRows.all(db);
    return [
      [...(await claimRows.addressesAt(db, site!.id))],
      (await machineRows.listed(db)).map((m) => m.summary.drives),
    ];
  };
});
