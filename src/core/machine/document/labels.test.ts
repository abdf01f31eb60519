import { expect, it } from "vitest";
import { aBuild, aDrive } from "../../../../tests/support/builds";
import { labelsOf } from "./labels";
import { emptyMachine } from "..";

const { document } = aBuild({
  drives: [aDrive("NV-0001", { bay: "3" }), aDrive("X", { serial: null })],
}).machine!;

it("makes a label for the machine, each drive and each wired port, and fills in nothing that is not known", () => {
  const labels = labelsOf("wrk-hv1", document);
  expect(labels.map((l) => l.kind)).toEqual(["machine", "drive", "drive", "port"]);
  expect(labels[1]).toEqual({
    kind: "drive",
    title: "wrk-hv1 bay 3",
    lines: ["Alder 480, 480 GB", "serial NV-0001"],
  });
  expect(labels[2]).toMatchObject({ title: "wrk-hv1", lines: ["Alder 480, 480 GB", "no serial number"] });
  expect(labels[3]?.lines).toEqual(["02:61:0a:00:00:14"]);
  expect(labelsOf("new", emptyMachine())).toEqual([{ kind: "machine", title: "new", lines: [] }]);
});

it("labels nothing that cannot be taken in the hand", () => {
  const set = aDrive("V", { presentedBy: "virtual drive 0" });
  const far = aDrive("S", { san: "iSCSI" });
  const gone = aDrive("G", { missingSince: "2026-11-20T08:00:00Z" });
  const facts = { ...document.facts, drives: [set, far, gone], ports: [] };
  expect(labelsOf("wrk-hv1", { ...document, facts })).toHaveLength(1);
});
