import { readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import { operationSchema, sightSchema, sightWords, statement, upgradedStep, type Sight } from ".";

const OLD = {
  ...{ id: "act", zone: "C", kind: "act", place: "desk", title: "Do it", see: ["done"], never: ["smoke"] },
  ...{ do: ["it"], type: [{ label: "Command", value: "ls" }], secret: ["envelope 3"], keys: "F2" },
  expected: [{ looks: "a beep", means: "it starts" }],
  ...{ hazards: [], guard: null, figure: null, after: {} },
  duration: { likelySeconds: 60, lateSeconds: 120, handsShare: 1 },
};
const upgraded = (changes: object) => operationSchema.parse(upgradedStep({ ...OLD, ...changes }));
const GUARD = {
  drives: [{ id: "D1", proof: "0001", name: "a drive" }],
  ...{ asks: "the last 4 characters", leaveAlone: [] },
};

describe("a step of a plan of version 1", () => {
  it("keeps what it told, and has as data what only its parts told", () =>
    expect(upgraded({})).toMatchObject({
      ...{ kind: "act", origin: { of: "work" }, lines: OLD.type, secrets: ["envelope 3"], must: "", runs: 0 },
      ...{ sees: [statement("done")], never: [statement("smoke")], measures: [], deeds: [], lent: [] },
      normal: [{ sight: statement("a beep"), means: "it starts" }],
    }));

  it.each<[string, object, object]>([
    ["a wait", { kind: "wait" }, { kind: "wait" }],
    ["what was typed", { kind: "type" }, { kind: "act" }],
    ["a guard", { kind: "guard", guard: GUARD }, { kind: "name drive", group: "", drives: [{ holds: "" }] }],
    [
      "a guard of one drive, whose name held the answer",
      { guard: { asks: "", leaveAlone: [], expect: "907F31", target: "module …907F31, 64 GB" } },
      { kind: "name drive", drives: [{ id: "", proof: "907F31", name: "module, 64 GB" }] },
    ],
    [
      "what was read back",
      { kind: "guard", readBack: { asks: ["verb"], verb: "install", version: "9", sizes: [] } },
      { kind: "read back", verb: "install" },
    ],
    ["the reading of the system", { id: "collect", kind: "read" }, { kind: "collect" }],
    ["the end", { id: "hand-over", kind: "confirm" }, { kind: "hand over" }],
    [
      "a screen of a leg's installer",
      { id: "stone1-screen-disk", zone: "H" },
      { origin: { of: "screen", screen: "disk", at: "installer" } },
    ],
    [
      "a screen of the first start",
      { id: "first-log-in", zone: "I" },
      { origin: { of: "screen", screen: "log-in", at: "first start" } },
    ],
    [
      "a start that the boot service hears of",
      { id: "first-start", zone: "H", told: "done" },
      { origin: { of: "work" }, lent: [{ executor: "boot service", report: "done" }] },
    ],
    ["a restart", { id: "restart", zone: "H" }, { effects: [{ do: "restart" }] }],
    ["the start from off", { id: "cold-start", zone: "J" }, { effects: [{ to: "off" }, { to: "on" }] }],
    [
      "what is learned from it, and what it leaves",
      {
        moves: { way: "stick", through: "ST-1", bytes: 9 },
        screen: "cairn 9 writing",
        does: { kind: "stick read back", stick: "ST-1" },
        asks: "Backup location",
      },
      {
        measures: [
          { of: "transfer", way: "stick", through: "ST-1", bytes: 9 },
          { of: "wait", what: "cairn 9 writing" },
        ],
        deeds: [{ kind: "stick read back", stick: "ST-1" }],
        records: "Backup location",
      },
    ],
  ])("is an operation: %s", (_, old, made) => expect(upgraded(old)).toMatchObject(made));
});

/** One of each kind of sight, with its words. */
const SIGHTS: [Sight, string][] = [
  [{ of: "screen", screen: "disk", shows: "one drive" }, "one drive"],
  [{ of: "output", shows: "ONLINE" }, "ONLINE"],
  [{ of: "label", part: "asset tag", reads: "7" }, "Asset tag 7"],
  [{ of: "hardware", machine: "wrk" }, "Memory and processors as recorded for wrk"],
  [{ of: "drive", look: "Sallow, 240 GB", holds: "empty" }, "Sallow, 240 GB – empty"],
  [{ of: "device", name: "blue stick", sizeBytes: null }, "blue stick, size not recorded"],
  [{ of: "checksum", value: "ab12" }, "ab12"],
  [{ of: "medium", medium: "stick", is: "out", holds: "", mac: null }, "No USB stick in any port"],
  [
    { of: "boot entry", name: "the stick", listed: null, mode: "legacy" },
    "An entry for the stick marked legacy BIOS",
  ],
  [{ of: "setting", is: "Secure Boot on" }, "Secure Boot on"],
  [{ of: "boot", ends: "no device" }, "No boot device found"],
  [{ of: "system", name: "wrk-hv1" }, "wrk-hv1 on the console"],
  [{ of: "address", answers: "https://10.0.0.1/" }, "https://10.0.0.1/"],
  [{ of: "boot service", tells: "listed", machine: "02:00" }, "The boot service lists 02:00"],
  [{ of: "acceptance" }, "All lines of the acceptance are resolved"],
  [statement("No smoke"), "No smoke"],
];

describe("a sight", () => {
  it.each(SIGHTS)("%j is told in words", (sight, words) => expect(sightWords(sight)).toBe(words));
  it("has a case here for each kind", () =>
    expect(SIGHTS.map(([s]) => s.of)).toEqual(sightSchema.options.map((o) => o.shape.of.value)));
});

it("nothing in a run is steered by an id, a letter or a sentence of a step", () => {
  const files = ["decide", "state", "acceptance", "deeds", "measured", "running", "read-back", "log-ins"];
  const code = files.map((f) => readFileSync(`src/core/run/${f}.ts`, "utf8")).join("\n");
  expect(code).not.toMatch(/\.id === "|\.zone === "|\.title === |endsWith\(|startsWith\("/);
});
