import { describe, expect, it } from "vitest";
import { aBuild, aDrive, NOW } from "../../../tests/support/builds";
import { aStick } from "../../../tests/support/firing-roads";
import { aPlan, HandLog } from "../../../tests/support/runs";
import { evaluateSheet } from "../sheet";
import { emptyMachine } from "../machine";
import { emptySite } from "../site";
import {
  exportSchema,
  Integrity,
  itemsOf,
  makeRecord,
  parseExport,
  rebaseExport,
  recordSchema,
  renderRecordMarkdown,
  type Export,
} from ".";

const by = "J. Pell";
const sheet = { "network.address": "10.61.10.120", "handOver.evaluationEnds": "2027-01-19" };
const service = { name: "SSH", port: 22, protocol: "tcp", from: ["outside"], until: "2026-12-24" };
const door = { ...service, why: "trial", logIn: "key", manages: false, insteadOf: {}, hardened: null };
const { basis } = evaluateSheet(aBuild({ sheet })).findings.find((f) => f.code === "network.in-pool")!;
const waivers = [{ key: "network.in-pool", reason: "the range is cut next week", by, at: NOW, basis }];
const plan = aPlan({ sheet: { ...sheet, waivers, "network.services": [door] } });

function finished(): HandLog {
  const run = new HandLog(plan);
  run.send({ kind: "differs", step: "identity", seen: "label | worn", decision: "go on" });
  run.toStep("end");
  run.acceptAll({ locale: { found: "C.UTF-8", verdict: "differs" } });
  run.send({ kind: "settled", line: "locale", how: "taken as it is", words: "logs are read in | English" });
  run.send({ kind: "handed over", to: "Control room" });
  return run;
}

describe("the record", () => {
  const run = finished();
  const record = makeRecord(plan, run.log);

  it("tells what was planned, found, waived and different, with times", () => {
    expect(recordSchema.parse(record)).toEqual(record);
    expect(record).toMatchObject({
      state: "handed over",
      handedTo: "Control room",
      sheet: "B-0001",
      revision: "A",
    });
    expect(record.waivers).toMatchObject([{ label: "E1", reason: "the range is cut next week", by }]);
    expect(record.deviations).toMatchObject([{ step: "Identify the machine", seen: "label | worn" }]);
    expect(record.times.takenSeconds).toBe((run.log.length - 1) * 60);
    expect(record.dates).toEqual([
      { date: "2027-01-19", what: "evaluation ends" },
      { date: "2026-12-24", what: "SSH, 22/tcp is closed to the outside" },
    ]);
  });

  it("reads as Markdown whose tables hold, whatever people typed", () => {
    const text = renderRecordMarkdown(record);
    expect(text).toBe(renderRecordMarkdown(makeRecord(plan, run.log)));
    expect(text).toContain("label \\| worn");
    expect(text).toContain("| C | Boot mode | UEFI | UEFI | as planned | – |");
    expect(text).toMatch(/\| F \| Locale \| .*deviation accepted: logs are read in \\\| English \(J\. Pell/);
    for (const block of text.split("\n\n").filter((b) => b.startsWith("|"))) {
      const columns = block.split("\n").map((row) => row.replace(/\\\|/g, "").split("|").length);
      expect(new Set(columns).size).toBe(1);
    }
  });

  it("shows every foreign word as it is: nothing that somebody typed becomes markup", () => {
    const nasty = "# <b>![y](http://z.example)|`c`&amp;_e_~~f~~\n## head";
    const kept = new Set([
      "format",
      "timeZone",
      "at",
      "state",
      "startedAt",
      "endedAt",
      "how",
      "layout",
      "arrived",
    ]);
    const spoil = (value: unknown, key = ""): unknown => {
      if (typeof value === "string") return kept.has(key) ? value : nasty;
      if (Array.isArray(value)) return value.map((v) => spoil(v, key));
      if (typeof value !== "object" || value === null) return value;
      return Object.fromEntries(Object.entries(value).map(([k, v]) => [k, spoil(v, k)]));
    };
    const text = renderRecordMarkdown(spoil(record) as typeof record);
    expect(text.split("\\<b\\>").length).toBeGreaterThan(60);
    expect(text.replace(/\\./g, "")).not.toMatch(/<b|!\[|\]\(|:\/\/|&|`|~|_e_/);
    expect(text.split("\n").filter((l) => l.startsWith("#") && !/^#{1,2} [A-Z\\]/.test(l))).toEqual([]);
  });

  it("names the drives of the sheet and not the stick, in new runs and in those from before they were frozen", () => {
    const other = aDrive("SA-000009", { sizeBytes: 9e11, contents: [] });
    const stick = aPlan({
      drives: [aDrive("NV-0001", {}), other],
      sticks: [aStick()],
      sheet: { "image.way": "stick", "image.stick.key": "ST-0007", "storage.leaveAlone": ["SA-000009"] },
    });
    const { drives } = makeRecord(stick, new HandLog(stick).toStep("screen-loading").log);
    expect(drives?.target).toContain("V-0001");
    expect(drives?.leftAlone).toEqual([expect.stringContaining("000009")]);
    expect(stick.basis.drives.target.map((d) => d.look)).toEqual(["Alder 480, 480 GB (447 GiB)"]);
  });

  it("tells a checksum that was compared in the run, by whom", () => {
    const unverified = aPlan({ image: { computed: null } });
    const log = new HandLog(unverified).toStep("firmware").log;
    expect(makeRecord(unverified, log.slice(0, 2)).image?.checksum).toBe("not computed");
    expect(makeRecord(unverified, log).image?.checksum).toMatch(
      /^matches, compared in this run by J\. Pell, 20 Nov 2026/,
    );
  });

  it("holds no secret, since nothing before it does", () => {
    expect(JSON.stringify(record)).not.toMatch(/passw(or)?d"\s*:/i);
    expect(record.reach?.secretsKept).toBe("safe, envelope 14");
  });
});

describe("the export file", () => {
  const file: Export = exportSchema.parse({
    format: "derrick-export",
    version: 1,
    exportedAt: NOW,
    sites: [{ id: "s1", document: emptySite("Works") }],
    machines: [{ id: "m1", siteId: "s1", name: "wrk-hv1", document: emptyMachine() }],
    profiles: [],
    images: [],
    builds: [
      {
        id: "b1",
        number: "B-0001",
        sheet: { ...plan.basis.sheet, image: { ...plan.basis.sheet.image, id: null } },
        revision: "A",
        history: [],
      },
    ],
    runs: [{ id: "r1", buildId: "b1", plan, log: finished().log }],
  });

  it("reads back as it was written", () => {
    expect(parseExport(JSON.stringify(file))).toEqual({ ok: true, value: file, warnings: [] });
  });

  it("moves all its times together", () => {
    const moved = rebaseExport(file, "2026-12-20T08:00:00.000Z");
    expect(moved.runs[0]?.log[0]?.at).toBe("2026-12-20T08:01:00.000Z");
    expect(moved.builds[0]?.sheet.handOver.evaluationEnds).toBe("2027-02-18");
    expect(rebaseExport(moved, NOW)).toEqual(file);
  });

  const [machine, run, build, site] = [file.machines[0]!, file.runs[0]!, file.builds[0]!, file.sites[0]!];
  const numbered = (...seqs: number[]) => ({
    ...run,
    log: seqs.map((seq, i) => ({ ...run.log[0]!, seq, key: `k${i}` })),
  });
  const unfit: [string, Partial<typeof file>, string][] = [
    [
      "a machine at no site",
      { machines: [{ ...machine, siteId: "s9" }] },
      "machines 0: it refers to the site s9, which is not in the file",
    ],
    [
      "a run of no build",
      { runs: [{ ...run, buildId: "b9" }] },
      "runs 0: it refers to the build b9, which is not in the file",
    ],
    ["a site twice", { sites: [site, site] }, `sites 1: the site ${site.id} is already in sites 0`],
    [
      "a sheet number twice",
      { builds: [build, { ...build, id: "b-other" }] },
      `builds 1: the build sheet ${build.number} is already in builds 0`,
    ],
    [
      "a log with a gap",
      { runs: [numbered(1, 2, 9)] },
      "runs 0: its log has number 9 instead of 3: an entry is missing, duplicated or out of order",
    ],
    [
      "a log that begins late",
      { runs: [numbered(2, 3)] },
      "runs 0: its log has number 2 instead of 1: an entry is missing, duplicated or out of order",
    ],
    [
      "a history with a version twice",
      {
        builds: [
          {
            ...build,
            history: [0, 0].map(() => ({ version: 2, at: NOW, by: "J", letter: null, edits: [] })),
          },
        ],
      },
      "builds 0: its history has the version 2 twice",
    ],
  ];
  it.each(unfit)("does not fit together with %s, and says where", (_, changes, problem) => {
    const watch = (given: typeof file) => {
      const integrity = new Integrity();
      for (const placed of itemsOf(given)) integrity.watch(placed);
      return integrity.problems();
    };
    expect(watch(file)).toEqual([]);
    expect(watch({ ...file, ...changes })).toContain(problem);
  });

  it.each([
    ["{", /the JSON ends in the middle/],
    ['{"format":"other"}', /^format/],
  ])("refuses a broken one with its place", (text, message) => {
    const read = parseExport(text);
    expect(!read.ok && read.problems[0]?.message).toMatch(message);
  });
});
