import { describe, expect, it } from "vitest";
import type { Severity, Zone } from "./finding";
import { foldFindings, quietWords } from "./fold";
import { numberFindings } from "./place-findings";

const finding = (code: string, zone: Zone, severity: Severity, subject?: string) => ({
  ...{ code, zone, severity, at: "network.address", basis: code, title: code, says: code, remedy: code },
  ...{ evidence: [], waivable: true, ...(subject ? { subject } : {}) },
});
const waiver = (key: string, basis: string) => ({
  ...{ key, reason: "as agreed with everybody", by: "J. Pell", at: "2026-11-20T08:00:00Z", basis },
});
const ALL = [
  finding("taken", "E", "stop"),
  finding("erases", "D", "stop", "a"),
  finding("erases", "D", "stop", "b"),
  finding("old", "D", "caution"),
  finding("shown", "D", "note", "1"),
  finding("shown", "D", "note", "2"),
  finding("set", "D", "caution"),
  finding("alone", "A", "note"),
];

describe("findings in a margin", () => {
  const placed = numberFindings(ALL, [waiver("set", "set")]);
  const groups = foldFindings(placed);

  it("stand zone by zone: stops, cautions, then what asks nobody to do anything in one line", () => {
    expect(groups.map((g) => [g.kind, g.zone, g.severity, g.findings.map((f) => f.label).join()])).toEqual([
      ["one", "A", "note", "A1"],
      ["equal", "D", "stop", "D1,D2"],
      ["one", "D", "caution", "D3"],
      ["quiet", "D", "note", "D4,D5,D6"],
      ["one", "E", "stop", "E1"],
    ]);
    expect(quietWords(groups[3]!)).toBe("2 notes, 1 waived");
    expect(quietWords({ findings: placed.slice(0, 1) })).toBe("1 note");
  });

  it("are all there, each once", () => {
    const labels = groups.flatMap((g) => g.findings.map((f) => f.label));
    expect(labels.toSorted()).toEqual(placed.map((f) => f.label).toSorted());
    expect(new Set(groups.map((g) => g.key)).size).toBe(groups.length);
  });

  it("come out of their line when a waiver has ended", () => {
    const ended = foldFindings(numberFindings(ALL, [waiver("shown:1", "something else")]));
    expect(ended.find((g) => g.findings.some((f) => f.key === "shown:1"))).toMatchObject({ kind: "one" });
  });
});
