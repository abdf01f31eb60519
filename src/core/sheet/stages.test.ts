import { describe, expect, it } from "vitest";
import { aBuild, aDrive, type BuildChanges } from "../../../tests/support/builds";
import { isBag } from "../document";
import { PLACEHOLDERS } from "../image";
import { MACHINE_SHEET_CHECKS } from "../machine";
import { emptySheet, evaluateSheet, fieldNames, fieldWords, STAGES, valuesOf } from ".";

/** The paths to all fields of a sheet; lists are one field. */
const pathsOf = (part: unknown, path = ""): string[] =>
  isBag(part)
    ? Object.entries(part).flatMap(([key, value]) => pathsOf(value, path ? `${path}.${key}` : key))
    : [path];

const summaryOf = (zone: string, changes: BuildChanges = {}) =>
  evaluateSheet(aBuild(changes)).stages.find((s) => s.zone === zone)!;

describe("the stages", () => {
  it("stand in working order, each under a letter of its own", () => {
    expect(STAGES.map((s) => s.zone).join("")).toBe("ABCDEFGHIJK");
    expect(new Set(STAGES.map((s) => s.title)).size).toBe(STAGES.length);
  });

  it("own every field of the sheet but its subject, its waivers and its version, and give each a name of its own", () => {
    const fields = pathsOf(emptySheet()).filter((p) => !["subject", "waivers", "schemaVersion"].includes(p));
    expect(fields.length).toBeGreaterThan(35);
    const named = STAGES.flatMap((s) => Object.keys(s.names));
    expect([...named].sort()).toEqual([...fields].sort());
    const words = fields.map((path) => fieldWords(path));
    expect(words.every((w) => w.zone !== null && /^[a-z]|^(DNS|USB|OS|Secure) /.test(w.name))).toBe(true);
    expect(new Set(words.map((w) => `${w.zone} ${w.name}`)).size).toBe(words.length);
    expect(fieldNames()["network.gateway"]).toBe("E gateway");
    expect(fieldWords("waivers")).toEqual({ zone: null, name: "waivers" });
  });

  it("keep their rules and their words together: no code in two stages, none without words, none left over", () => {
    const codes = STAGES.flatMap((s) => s.checks.map((c) => c.code));
    expect(new Set(codes).size).toBe(codes.length);
    const onMachine = new Set(MACHINE_SHEET_CHECKS.map((c) => c.code));
    for (const { title, checks, messages } of STAGES) {
      const own = new Set<string>(checks.map((c) => c.code));
      // The machine's own sheet shows rules that no build does; their words stand with the others.
      const left = Object.keys(messages).filter((code) => !own.has(code) && !onMachine.has(code));
      expect(left, title).toEqual([]);
    }
  });
});

describe("a summary says what was decided, in plain words", () => {
  it.each([
    ["A", "wrk-hv1: Ostler R114 · 8 cores · 64 GiB memory · 1 drive · 1 port"],
    ["B", "Cairn 9.0, by virtual CD"],
    ["C", "UEFI, virtual CD once, then the target"],
    ["D", "On Alder 480, 480 GB (447 GiB)"],
    ["E", "static 10.61.10.20, Works management, port eno1"],
    ["F", "wrk-hv1.marrowby.example, root, gb"],
    ["J", "The bundle of the installed system is compared with this sheet"],
    ["K", "To Control room"],
  ])("%s: %s", (zone, words) => expect(summaryOf(zone).summary).toBe(words));

  it.each<[zone: string, words: string, changes: BuildChanges]>([
    ["A", "Choose the machine", { machine: null }],
    ["B", "Choose the image and its boot source", { image: null }],
    ["D", "Set target and protected drives", { sheet: { "storage.target": null } }],
    ["E", "Set the address and its port", { sheet: { "network.address": "" } }],
    ["F", "Set name and accounts", { sheet: { "answers.hostName": "" } }],
    ["H", "Choose machine and image to get the steps", { image: null }],
    ["J", "The installed system will be compared with the plan", { image: null }],
  ])("%s asks, while it is open: %s", (zone, words, changes) => {
    expect(summaryOf(zone, changes)).toMatchObject({ summary: words });
    expect(["open", "stopped"]).toContain(summaryOf(zone, changes).state);
  });

  it.each<[zone: string, words: string | RegExp, changes: BuildChanges]>([
    ["B", "Cairn 9.0, by blue stick", { sheet: { "image.way": "stick", "image.stick.name": "blue stick" } }],
    ["B", "Cairn 9.0, by USB stick (no name)", { sheet: { "image.way": "stick" } }],
    [
      "C",
      "legacy BIOS, media first in the permanent boot order",
      { sheet: { "boot.mode": "legacy", "boot.start": "media first in the boot order" } },
    ],
    [
      "E",
      "DHCP, Works management, port eno1",
      { sheet: { "network.school": "dynamic", "network.address": "" } },
    ],
    [
      "F",
      "wrk-hv1, no account, keyboard layout missing",
      { sheet: { "answers.domain": "", "answers.accounts": [], "answers.keyboard": "" } },
    ],
    [
      "K",
      "To Control room; evaluation ends 2027-01-01",
      { sheet: { "handOver.evaluationEnds": "2027-01-01" } },
    ],
    ["K", "Owner missing", { sheet: { "handOver.owner": "" } }],
    [
      "D",
      "mirror of Alder 480, 480 GB (447 GiB) and Alder 480, 480 GB (447 GiB) (spare)",
      {
        drives: [aDrive("NV-0001", {}), aDrive("NV-0002", {})],
        sheet: { "storage.layout": "mirror", "storage.partners": [{ drive: "NV-0002", role: "spare" }] },
      },
    ],
    ["D", /2 drives protected$/, { sheet: { "storage.leaveAlone": ["a", "b"] } }],
  ])("%s: %s", (zone, words, changes) => {
    const { summary } = summaryOf(zone, changes);
    if (typeof words === "string") expect(summary.replace(/^On /, "")).toBe(words);
    else expect(summary).toMatch(words);
  });

  it("folds what this build has nothing of", () => {
    expect(summaryOf("G").state).toBe("folded");
    const without = aBuild({ profile: { ...aBuild().profile!, firstBoot: [] } });
    expect(evaluateSheet(without).stages.find((s) => s.zone === "I")).toMatchObject({
      state: "folded",
      summary: "No first-boot tasks",
    });
  });
});

describe("values", () => {
  it("come from the stage that decides them, one from each home", () => {
    const homes = new Map<string, string[]>();
    const plan = aBuild();
    for (const stage of STAGES)
      for (const name of Object.keys(stage.values(plan)))
        homes.set(name, [...(homes.get(name) ?? []), stage.zone]);
    expect([...homes.keys()].sort()).toEqual([...PLACEHOLDERS].sort());
    expect([...homes.values()].filter((zones) => zones.length > 1)).toEqual([]);
  });

  it("are these for a sound build", () => {
    expect(valuesOf(aBuild())).toMatchObject({
      "account.admin": "root",
      "account.where": "safe, envelope 14",
      "boot.mode": "UEFI",
      "host.fqdn": "wrk-hv1.marrowby.example",
      "host.gateway": "10.61.10.1",
      "host.mac": "02:61:0a:00:00:14",
      "host.netmask": "255.255.255.0",
      "host.port": "eno1",
      "host.prefix": "24",
      "image.file": "cairn-9.iso",
      "machine.name": "wrk-hv1",
      "target.count": "1 drive",
      "target.layout": "single drive",
      "target.name": "Alder 480, 480 GB (447 GiB)",
      "target.size": "447 GiB",
      "time.zone": "Europe/London",
    });
  });

  it("are empty while nothing is decided, and never a guess", () => {
    const empty = valuesOf(
      aBuild({ machine: null, image: null, sheet: { "answers.hostName": "", "network.segment": null } }),
    );
    for (const name of [
      "host.name",
      "host.netmask",
      "host.port",
      "host.prefix",
      "image.file",
      "machine.name",
      "target.seenAs",
    ] as const)
      expect(empty[name], name).toBe("");
  });

  it("of a set name each kind of drive once, and how many there are", () => {
    const drives = [aDrive("NV-0001", {}), aDrive("NV-0002", {}), aDrive("SA-0003", { model: "Other" })];
    const partners = ["NV-0002", "SA-0003"].map((drive) => ({ drive, role: "member" }));
    const values = valuesOf(
      aBuild({ drives, sheet: { "storage.layout": "raidz1", "storage.partners": partners } }),
    );
    expect(values["target.model"]).toBe("Alder 480; Other");
    expect([values["target.count"], values["target.layout"]]).toEqual(["3 drives", "raidz1 of 3"]);
  });
});
