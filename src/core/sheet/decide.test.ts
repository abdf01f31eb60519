import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { aBuild, aDrive, aSite, type BuildChanges } from "../../../tests/support/builds";
import { valueAt } from "../document";
import { emptyMachine } from "../machine";
import {
  applyEdits,
  decideSheet,
  evaluateSheet,
  invertEdits,
  type ActGround,
  type Edit,
  type Sheet,
  type SheetAct,
} from ".";

const GROUND: ActGround = {
  by: "J. Pell",
  at: "2026-11-20T08:00:00.000Z",
  chosen: null,
  hasImage: true,
  newestEdition: 3,
  profile: null,
};
const holding = aDrive("NV-0001", {
  contents: [{ part: "p1", sizeBytes: 9, kind: "ext4", label: "old", mountedAt: [] }],
});
const FULL: BuildChanges = { drives: [holding, aDrive("NV-0002", {})] };
const edit = (path: string, after: unknown, before: unknown = null): Edit => ({ path, before, after });

const decided = (act: SheetAct, changes: BuildChanges = FULL, ground: Partial<ActGround> = {}) =>
  decideSheet(aBuild(changes), act, { ...GROUND, ...ground });

const refusal = (...given: Parameters<typeof decided>): string => {
  const answer = decided(...given);
  return answer.ok ? "" : answer.problems.map((p) => p.message).join(" ");
};

function sheetAfter(...given: Parameters<typeof decided>): Sheet {
  const answer = decided(...given);
  const next = answer.ok && applyEdits(aBuild(given[1] ?? FULL).sheet, answer.value);
  if (!next || !next.ok) throw new Error(refusal(...given));
  return next.value;
}

const waivable = evaluateSheet(aBuild(FULL)).findings.find((f) => f.waivable && f.severity !== "note")!;

describe("an act on a sheet", () => {
  it("keeps with each field from which line of a file it was taken, and with nothing else", () => {
    const from = "preseed file, line 7";
    const answer = decided({
      act: "edit",
      edits: [{ ...edit("answers.hostName", "other"), from }, edit("answers.domain", "b.example")],
    });
    expect(answer.ok && answer.value.map((e) => [e.path, e.from])).toEqual([
      ["answers.hostName", from],
      ["answers.domain", undefined],
    ]);
    expect(answer.ok && invertEdits(answer.value).some((e) => e.from)).toBe(false);
  });

  it("edits, and a choice of machine brings its consequences along", () => {
    const machine = { id: "m2", name: "wrk-hv2", document: emptyMachine() };
    const next = sheetAfter({ act: "edit", edits: [edit("machine.id", "m2")] }, FULL, {
      chosen: { machine, site: aSite },
    });
    expect(next.machine.id).toBe("m2");
    expect(next.storage.target, "a drive of another machine is no target").toBeNull();
    expect(refusal({ act: "edit", edits: [edit("machine.id", "m9")] })).toBe(
      "This machine no longer exists.",
    );
    const noImage = decided({ act: "edit", edits: [edit("image.id", "i9")] }, FULL, { hasImage: false });
    expect(noImage).toMatchObject({ problems: [{ message: "This image no longer exists." }] });
  });

  it("keeps the edition that is the newest when an image is chosen, and not before", () => {
    expect(sheetAfter({ act: "edit", edits: [edit("image.id", "i2")] }).image.edition).toBe(3);
    expect(sheetAfter({ act: "edit", edits: [edit("subject", "other")] }).image.edition).toBeNull();
  });

  it("gives a sheet without accounts those of the image's family, and touches none that were typed", () => {
    const { profile } = aBuild(FULL);
    const choice: SheetAct = { act: "edit", edits: [edit("image.id", "i2")] };
    const bare: Edit[] = [...choice.edits, edit("answers.accounts", [])];
    expect(sheetAfter({ act: "edit", edits: bare }, FULL, { profile }).answers.accounts).toHaveLength(1);
    expect(sheetAfter({ act: "edit", edits: bare }).answers.accounts).toEqual([]);
    expect(sheetAfter(choice, FULL, { profile }).answers).toEqual(aBuild(FULL).sheet.answers);
  });

  it("signs in the name of the desk, whatever an edit says", () => {
    const agreed = sheetAfter({ act: "agree to erase", drive: "NV-0001", typed: "nv-0001" });
    expect(agreed.storage.erase).toMatchObject([{ drive: "NV-0001", by: "J. Pell", at: GROUND.at }]);
    expect(refusal({ act: "agree to erase", drive: "NV-0001", typed: "NV-0002" })).toContain(
      "This does not identify Alder 480",
    );
    expect(refusal({ act: "edit", edits: [edit("storage.erase", agreed.storage.erase)] })).toContain(
      "not by an edit",
    );
    const aside = sheetAfter({ act: "set aside", key: waivable.key, reason: "seen, and agreed with Joan" });
    expect(aside.waivers).toMatchObject([{ key: waivable.key, by: "J. Pell", basis: waivable.basis }]);
    expect(refusal({ act: "edit", edits: [edit("waivers", aside.waivers)] })).toContain("not by an edit");
  });

  it("sets nothing aside that protects data, is not there, or has no reason", () => {
    expect(refusal({ act: "set aside", key: "storage.holds-data", reason: "it will be fine" })).toContain(
      "protects data",
    );
    expect(refusal({ act: "set aside", key: "storage.ghost", reason: "it will be fine" })).toContain(
      "This finding no longer exists",
    );
    expect(refusal({ act: "set aside", key: waivable.key, reason: "ok" })).toContain("enter a short reason");
  });

  it("takes nothing back that was changed again since then", () => {
    const edits = [edit("network.address", "10.61.10.20", "10.61.10.19"), edit("subject", "gone", "was")];
    expect(refusal({ act: "take back", edits })).toBe(
      "Changed again since then, so nothing was undone: subject.",
    );
  });
});

/** Acts of all kinds, most of them possible. */
const anyAct = fc.oneof(
  fc
    .tuple(
      fc.constantFrom("subject", "network.address", "answers.hostName", "image.id", "boot.menuKey"),
      fc.string({ maxLength: 60 }),
    )
    .map(([path, value]): SheetAct => ({ act: "edit", edits: [edit(path, value)] })),
  fc
    .constantFrom("m2", "m3")
    .map((id): SheetAct => ({ act: "edit", edits: [edit("machine.id", id), edit("subject", `for ${id}`)] })),
  fc
    .constantFrom("NV-0001", "nv0001", "x")
    .map((typed): SheetAct => ({ act: "agree to erase", drive: "NV-0001", typed })),
  fc.constant<SheetAct>({ act: "set aside", key: waivable.key, reason: "seen, and agreed with Joan" }),
);

it("undo is the identity for every act, and so is taking it back by an act", () => {
  const machine = { id: "m2", name: "wrk-hv2", document: emptyMachine() };
  const ground: ActGround = { ...GROUND, chosen: { machine, site: aSite } };
  let possible = 0;
  fc.assert(
    fc.property(anyAct, (act) => {
      const plan = aBuild(FULL);
      const answer = decideSheet(plan, act, ground);
      if (!answer.ok) return;
      possible += 1;
      const next = applyEdits(plan.sheet, answer.value);
      if (!next.ok) throw new Error("an act was decided that cannot be applied");
      expect(applyEdits(next.value, invertEdits(answer.value))).toMatchObject({
        ok: true,
        value: plan.sheet,
      });
      const back = decideSheet(
        { ...plan, sheet: next.value },
        { act: "take back", edits: answer.value },
        ground,
      );
      expect(back.ok && applyEdits(next.value, back.value)).toMatchObject({ ok: true, value: plan.sheet });
      for (const e of answer.value) expect(valueAt(next.value, e.path) ?? null).toEqual(e.after);
    }),
    { seed: 7, numRuns: 80 },
  );
  expect(possible).toBeGreaterThan(60);
});
