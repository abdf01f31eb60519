import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { evidence, hit, message, numberFindings, openStops, rulesOver, runChecks, waiverSchema } from ".";
import type { Hit, Severity, Waiver, Zone } from ".";

const WORDS = {
  a: message("A", "{x} of {y}", "do {x}", "why"),
  b: message("B", "b", "b", "why"),
};
interface Ground {
  hits: Partial<Record<"a" | "b", Hit<string, { x: string; y: string }>[]>>;
}
const rulesIn = rulesOver<Ground, string>();
const checkIn = (a: Zone, b: Zone) => [
  rulesIn(a, WORDS)("a", ({ hits }) => hits.a ?? []),
  rulesIn(b, WORDS)("b", ({ hits }) => hits.b ?? []),
];
const at = (severity: Severity, x = "1", more: object = {}) => ({
  ...hit(severity, "field", { x, y: "2" }, evidence("measured", x, "a tool")),
  ...more,
});
const find = (hits: Ground["hits"], waivers: Waiver[] = [], about = "") =>
  numberFindings(
    runChecks(checkIn("D", "B"), WORDS, { hits }, () => about),
    waivers,
  );
const waiver = (key: string, basis: string | null): Waiver =>
  waiverSchema.parse({ key, reason: "seen and accepted", by: "J. Pell", at: "2026-11-20T08:00:00Z", basis });

describe("findings of a sheet", () => {
  it("are numbered in their zone, stops first, in the order of the rules", () => {
    const all = find({ a: [at("note", "1"), at("stop", "2"), at("caution", "3")], b: [at("caution")] });
    expect(all.map((f) => [f.label, f.severity, f.says])).toEqual([
      ["B1", "caution", "b"],
      ["D1", "stop", "2 of 2"],
      ["D2", "caution", "3 of 2"],
      ["D3", "note", "1 of 2"],
    ]);
    expect(all[1]!.remedy).toBe("do 2");
  });

  it("keep the numbers of those before them whatever comes behind", () => {
    const severities = fc.array(fc.constantFrom<Severity>("stop", "caution", "note"), { maxLength: 12 });
    fc.assert(
      fc.property(severities, (list) => {
        const all = find({ a: list.map((s, i) => at(s, String(i))) });
        expect(all.map((f) => f.label)).toEqual(list.map((_, i) => `D${i + 1}`));
        const ranks = all.map((f) => ["stop", "caution", "note"].indexOf(f.severity));
        expect(ranks).toEqual([...ranks].sort());
      }),
      { seed: 3, numRuns: 60 },
    );
  });

  it("are told apart by their subject, and by nothing else", () => {
    const keys = find({
      a: [at("stop", "1", { subject: "S1" }), at("stop", "2", { subject: "S2" }), at("stop")],
    });
    expect(keys.map((f) => f.key)).toEqual(["a:S1", "a:S2", "a"]);
  });
});

describe("a waiver", () => {
  const [found] = find({ a: [at("stop", "1")] });

  it("sets aside the finding that it was given for, and no other", () => {
    const all = find({ a: [at("stop", "1"), at("stop", "1", { subject: "S2" })] }, [
      waiver("a", found!.basis),
    ]);
    expect(all.map((f) => f.waiver !== null)).toEqual([true, false]);
    expect(openStops(all).map((f) => f.key)).toEqual(["a:S2"]);
  });

  it("ends when what the finding is found from changes, and says so", () => {
    const [changed] = find({ a: [at("stop", "9")] }, [waiver("a", found!.basis)]);
    expect([changed!.waiver, changed!.ended?.by]).toEqual([null, "J. Pell"]);
    const [elsewhere] = find({ a: [at("stop", "1")] }, [waiver("a", found!.basis)], "another machine");
    expect(elsewhere!.waiver).toBeNull();
    expect(find({ a: [at("stop", "1")] }, [waiver("a", null)])[0]!.waiver).toBeNull();
  });

  it("holds through the time of day, which is no fact", () => {
    const clock = (time: string) => ({
      ...at("stop", "1"),
      evidence: [evidence("measured", "1", "a tool"), evidence("now", time, "clock")],
    });
    const [morning] = find({ a: [clock("08:00")] });
    expect(find({ a: [clock("17:00")] }, [waiver("a", morning!.basis)])[0]!.waiver).not.toBeNull();
  });

  it("never covers a stop that protects data, whatever it says", () => {
    const [data] = find({ a: [at("stop", "1", { protectsData: true })] });
    expect(data!.waivable).toBe(false);
    const all = find({ a: [at("stop", "1", { protectsData: true })] }, [waiver("a", data!.basis)]);
    expect([all[0]!.waiver, all[0]!.ended, openStops(all).length]).toEqual([null, null, 1]);
  });

  it("needs a reason, in more than a word", () => {
    const given = { key: "a", by: "J. Pell", at: "2026-11-20T08:00:00Z" };
    for (const reason of ["", "ok", "       x       "])
      expect(waiverSchema.safeParse({ ...given, reason }).success, reason).toBe(false);
  });
});
