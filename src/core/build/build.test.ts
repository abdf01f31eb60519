import { readdirSync } from "node:fs";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { aBuild, aDrive, shippedProfile } from "../../../tests/support/builds";
import { PLACEHOLDERS } from "../image";
import {
  applyEdits,
  deriveSteps,
  diffSheets,
  emptySheet,
  evaluateBuild,
  invertEdits,
  nextRevision,
  stepSchema,
  valuesOf,
} from ".";

describe("edits", () => {
  const before = aBuild().sheet;
  const after = aBuild({
    sheet: { "network.address": "10.61.10.21", "answers.accounts": [], "image.stick.name": "blue" },
  }).sheet;

  it("are exactly what differs, and their inverse undoes them", () => {
    const edits = diffSheets(before, after);
    expect(edits.map((e) => e.path).sort()).toEqual([
      "answers.accounts",
      "image.stick.name",
      "network.address",
    ]);
    expect(applyEdits(before, edits)).toMatchObject({ ok: true, value: after });
    expect(applyEdits(after, invertEdits(edits))).toMatchObject({ ok: true, value: before });
  });

  it("to an unknown field or of a wrong kind are refused with the field", () => {
    expect(applyEdits(before, [{ path: "network.colour", before: null, after: 1 }])).toMatchObject({
      ok: false,
      problems: [{ message: "the sheet has no field network.colour" }],
    });
    expect(applyEdits(before, [{ path: "boot.mode", before: "uefi", after: "sideways" }])).toMatchObject({
      ok: false,
      problems: [{ message: expect.stringMatching(/^boot\.mode: /) }],
    });
    expect(applyEdits(before, [{ path: "__proto__.x", before: null, after: 1 }]).ok).toBe(false);
  });

  it("undo any sequence of changes of text fields", () => {
    const field = fc.constantFrom("subject", "network.address", "answers.hostName", "handOver.owner");
    fc.assert(
      fc.property(fc.array(fc.tuple(field, fc.string()), { maxLength: 8 }), (changes) => {
        const end = changes.reduce((sheet, [path, value]) => {
          const next = applyEdits(sheet, [{ path, before: null, after: value.slice(0, 100) }]);
          return next.ok ? next.value : sheet;
        }, emptySheet());
        const back = applyEdits(end, invertEdits(diffSheets(emptySheet(), end)));
        expect(back).toMatchObject({ ok: true, value: emptySheet() });
      }),
      { seed: 11, numRuns: 60 },
    );
  });

  it("get letters as drawings do, without I and O", () => {
    expect([null, "A", "H", "N", "Z", "AA", "AZ"].map(nextRevision)).toEqual([
      "A",
      "B",
      "J",
      "P",
      "AA",
      "AB",
      "BA",
    ]);
  });
});

describe("steps", () => {
  const steps = deriveSteps(aBuild());
  const ids = steps.map((s) => s.id);

  it("follow from the sheet alone, in working order", () => {
    expect(ids).toEqual([
      "identity",
      "firmware",
      "media-in",
      "one-time",
      "screen-loading",
      "screen-welcome",
      "screen-licence",
      "guard-disk",
      "screen-disk",
      "screen-install-or-upgrade",
      "screen-keyboard",
      "screen-password",
      "screen-confirm",
      "screen-writing",
      "media-out",
      "restart",
      "first-network-fixed",
      "first-first-page",
      "first-licence-key",
      "cold-start",
      "collect",
      "hand-over",
    ]);
    expect(deriveSteps(aBuild())).toEqual(steps);
    for (const s of steps) expect(stepSchema.safeParse(s).success).toBe(true);
  });

  it.each(["cairn-hypervisor-9", "lowland-server-7"])(
    "of %s put a guard before every destructive screen and media out before the restart",
    (file) => {
      const profile = shippedProfile(file);
      const made = deriveSteps(aBuild({ profile, sheet: { "network.school": "dynamic" } }));
      for (const screen of profile.screens.filter((s) => s.destroys)) {
        const at = made.findIndex((s) => s.id === `screen-${screen.id}`);
        expect(made[at - 1]).toMatchObject({ kind: "guard", guard: { expect: "V-0001".slice(-6) } });
      }
      const at = (id: string) => made.findIndex((s) => s.id === id);
      expect(at("media-out")).toBeLessThan(at("restart"));
      expect(made.some((s) => s.id.includes("network-fixed"))).toBe(false);
    },
  );

  it.each(readdirSync("profiles").map((f) => f.replace(".yaml", "")))(
    "of %s fill every placeholder, for an answer card that can be read from",
    (file) => {
      const profile = shippedProfile(file);
      for (const school of ["fixed", "reserved"]) {
        const made = deriveSteps(
          aBuild({
            profile,
            profiles: [profile],
            facts: { system: { osName: "Old System 1", osVersion: "1" } },
            sheet: {
              "network.school": school,
              "answers.accounts": [
                { name: "root", role: "super-user", logIn: "none" },
                { name: "jpell", role: "administrator", logIn: "password" },
              ],
            },
          }),
        );
        expect(JSON.stringify(made)).not.toMatch(/\{[a-z]+\.[a-zA-Z]+\}/);
        expect(made.flatMap((s) => s.type).every((t) => t.value.trim() !== "")).toBe(true);
        expect(made.filter((s) => s.type.length > 0 || s.secret.length > 0).length).toBeGreaterThan(0);
        expect(made.filter((s) => s.kind === "guard")).toHaveLength(1);
      }
    },
  );

  it("name the drives that must be left alone, by serial", () => {
    const other = aDrive("SA-000009", {
      sizeBytes: 9e11,
      contents: [{ part: "a", sizeBytes: 1, kind: "ext4", label: "archive", mountedAt: [] }],
    });
    const guard = deriveSteps(aBuild({ drives: [aDrive("NV-0001", {}), other] })).find((s) => s.guard)?.guard;
    expect(guard?.leaveAlone).toEqual([
      { tail: "000009", name: expect.stringContaining("000009"), holds: 'ext4 "archive"' },
    ]);
  });

  it("take the link's time when it is longer than the profile's, and show the working", () => {
    const loading = steps.find((s) => s.id === "screen-loading");
    // 731 906 048 B at 65 536 B per 40 ms round trip = 446.7 s, more than the profile's 420 s.
    expect(loading?.duration.likelySeconds).toBeCloseTo(446.72, 1);
    expect(loading?.figure?.formula).toContain("the narrowest is the round trip");
  });

  it("contain no placeholder once everything is decided", () => {
    expect(JSON.stringify(steps)).not.toMatch(/\{[a-z]+\.[a-zA-Z]+\}/);
    expect(Object.keys(valuesOf(aBuild())).sort()).toEqual([...PLACEHOLDERS].sort());
  });

  it("never hold a password", () => {
    expect(steps.flatMap((s) => s.secret)).toEqual(["Password of root, kept in: safe, envelope 14"]);
  });
});

describe("the evaluation", () => {
  it("hangs at the first stage that is not settled, and bends at a stop", () => {
    const empty = evaluateBuild({
      ...aBuild({ machine: null, image: null, profile: null }),
      sheet: emptySheet(),
    });
    expect([empty.hook, empty.stages.find((s) => s.zone === "A")?.state]).toEqual(["A", "stopped"]);
    const clash = evaluateBuild(aBuild({ sheet: { "network.address": "10.61.10.120" } }));
    expect([clash.hook, clash.stops.map((s) => s.label)]).toEqual(["E", ["E1"]]);
    expect(evaluateBuild(aBuild()).hook).toBe("H");
  });

  it("waives a finding with a reason, and never one that protects data", () => {
    const waive = (key: string) => ({
      key,
      reason: "agreed with the site",
      by: "J. Pell",
      at: "2026-11-20T08:00:00Z",
    });
    const pool = evaluateBuild(
      aBuild({ sheet: { "network.address": "10.61.10.120", waivers: [waive("network.in-pool")] } }),
    );
    expect([pool.stops, pool.findings[0]?.waiver?.by]).toEqual([[], "J. Pell"]);
    const data = aDrive("NV-0001", {
      contents: [{ part: "p", sizeBytes: 1, kind: "ext4", label: null, mountedAt: [] }],
    });
    expect(
      evaluateBuild(aBuild({ drives: [data], sheet: { waivers: [waive("storage.holds-data")] } })).stops.map(
        (s) => s.label,
      ),
    ).toEqual(["D1"]);
  });
});
