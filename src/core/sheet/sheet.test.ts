import { readdirSync } from "node:fs";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { asked, naming } from "../../../tests/support/steps";
import { aBuild, aDrive, shippedProfile, type BuildChanges } from "../../../tests/support/builds";
import { PLACEHOLDERS } from "../image";
import { isGuard, operationSchema } from "../work";
import { consentTo, consentViews } from "../storage";
import {
  applyEdits,
  deriveSteps,
  diffSheets,
  emptySheet,
  evaluateSheet,
  invertEdits,
  nextRevision,
  signedAnew,
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
      "guard-confirm",
      "readback-confirm",
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
    for (const s of steps) expect(operationSchema.safeParse(s).success).toBe(true);
  });

  /** Every road of every profile, from whatever it may come from: fresh, and each allowed jump. */
  const roads = readdirSync("profiles").flatMap((file) => {
    const profile = shippedProfile(file.replace(".yaml", ""));
    // Steps inside one line are only taken on the way to another.
    const jumps = profile.upgrades
      .filter((u) => u.to === undefined)
      .map((u) => [u.way, `${u.from.profile} ${u.from.least ?? u.from.version}`]);
    return [["fresh", ""], ...jumps].map(
      ([road, from]) => [`${profile.name} ${road} ${from}`, profile, road, from] as const,
    );
  });
  const everyProfile = readdirSync("profiles").map((f) => shippedProfile(f.replace(".yaml", "")));

  it.each(roads)(
    "%s: a guard stands before each screen that chooses or writes a drive",
    (_, profile, road, from) => {
      const [key, version = ""] = from?.split(" ") ?? [];
      const old = everyProfile.find((p) => p.profile === key);
      const osId = old?.identify.id;
      const context = aBuild({
        profile,
        profiles: everyProfile,
        facts: from ? { system: { osId, osName: `${key} ${version}`, osVersion: version } } : {},
        sheet: { "image.road": road, "network.school": "dynamic" },
      });
      const made = deriveSteps(context);
      const screens = road === "fresh" ? profile.screens : profile.upgrades.flatMap((u) => u.screens);
      const guarded = screens.filter((s) => s.drive === "chooses" || s.drive === "writes");
      expect(guarded.length).toBeGreaterThan(0);
      const steps = guarded.flatMap((s) => made.filter((m) => m.id.endsWith(`screen-${s.id}`)));
      expect(steps.length).toBeGreaterThan(0);
      for (const step of steps) expect(isGuard(made[made.indexOf(step) - 1]!), step.id).toBe(true);
      const at = (id: string) => made.findIndex((s) => s.id === id);
      expect(at("media-out")).toBeLessThan(at("restart"));
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
              "answers.edition": profile.editions[0]?.name ?? "",
              "answers.accounts": [
                { name: "root", role: "super-user", logIn: "none" },
                { name: "jpell", role: "administrator", logIn: "password" },
              ],
            },
          }),
        );
        expect(JSON.stringify(made)).not.toMatch(/\{[a-z]+\.[a-zA-Z]+\}/);
        expect(made.flatMap((s) => s.lines).every((t) => t.value.trim() !== "")).toBe(true);
        expect(made.filter((s) => s.lines.length > 0 || s.secrets.length > 0).length).toBeGreaterThan(0);
        expect(made.filter(naming)).toHaveLength(profile.screens.filter((s) => s.drive !== "none").length);
        expect(made.filter(asked)).toHaveLength(profile.screens.filter((s) => s.reads.length > 0).length);
      }
    },
  );

  it("name the protected drives, by serial", () => {
    const other = aDrive("SA-000009", {
      sizeBytes: 9e11,
      contents: [{ part: "a", sizeBytes: 1, kind: "ext4", label: "archive", mountedAt: [] }],
    });
    const guard = deriveSteps(aBuild({ drives: [aDrive("NV-0001", {}), other] })).find(naming);
    expect(naming(guard)?.leaveAlone).toEqual([
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
    expect(steps.flatMap((s) => s.secrets)).toEqual(["Password of root, stored in: safe, envelope 14"]);
  });
});

describe("the evaluation", () => {
  it("hangs at the first stage that is not settled, and bends at a stop", () => {
    const empty = evaluateSheet({
      ...aBuild({ machine: null, image: null, profile: null }),
      sheet: emptySheet(),
    });
    expect([empty.hook, empty.stages.find((s) => s.zone === "A")?.state]).toEqual(["A", "stopped"]);
    const clash = evaluateSheet(aBuild({ sheet: { "network.address": "10.61.10.120" } }));
    expect([clash.hook, clash.stops.map((s) => s.label)]).toEqual(["E", ["E1"]]);
    expect(evaluateSheet(aBuild()).hook).toBe("H");
  });

  it("waives a finding with a reason, and never one that protects data", () => {
    const inPool = { "network.address": "10.61.10.120" };
    const found = (changes: BuildChanges, code: string) =>
      evaluateSheet(aBuild(changes)).findings.find((f) => f.code === code);
    const waive = (key: string, changes: BuildChanges = { sheet: inPool }) => ({
      key,
      reason: "agreed with the site",
      by: "J. Pell",
      at: "2026-11-20T08:00:00Z",
      basis: found(changes, key)?.basis ?? null,
    });
    const pool = evaluateSheet(aBuild({ sheet: { ...inPool, waivers: [waive("network.in-pool")] } }));
    expect([pool.stops, pool.findings[0]?.waiver?.by]).toEqual([[], "J. Pell"]);
    const data = aDrive("NV-0001", {
      contents: [{ part: "p", sizeBytes: 1, kind: "ext4", label: null, mountedAt: [] }],
    });
    expect(
      evaluateSheet(
        aBuild({ drives: [data], sheet: { waivers: [waive("storage.holds-data", { drives: [data] })] } }),
      ).stops.map((s) => s.label),
    ).toEqual(["D1"]);
  });

  it("ends a waiver when the drive, the machine, the image or the value it was given for has changed", () => {
    const card = (id: string) => [aDrive(id, { media: "card" })];
    const given: BuildChanges = { drives: card("NV-0001") };
    const basis = evaluateSheet(aBuild(given)).findings.find((f) => f.code === "storage.removable")!.basis;
    const waivers = [
      {
        key: "storage.removable",
        reason: "two of them are mirrored",
        by: "J. Pell",
        at: "2026-11-20T08:00:00Z",
        basis,
      },
    ];
    const now = (changes: BuildChanges) =>
      evaluateSheet(aBuild({ ...given, ...changes, sheet: { waivers, ...changes.sheet } })).findings.find(
        (f) => f.code === "storage.removable",
      );
    expect(now({})?.waiver?.reason).toBe("two of them are mirrored");
    const changes: BuildChanges[] = [
      { drives: card("NV-0009"), sheet: { "storage.target": "NV-0009" } },
      { drives: [aDrive("NV-0001", { media: "usb" })] },
      { sheet: { "machine.id": "m2" } },
      { sheet: { "image.id": "i2" } },
    ];
    for (const change of changes)
      expect(now(change), JSON.stringify(change)).toMatchObject({ waiver: null, ended: { by: "J. Pell" } });
  });

  it("tells the serial of a drive nowhere while it asks for it, and everywhere else once it was named", () => {
    const contents = [{ part: "p", sizeBytes: 1, kind: "ext4", label: null, mountedAt: [] }];
    const holding: BuildChanges = {
      drives: [aDrive("NV-0001", { contents, health: { pending: 8 } }), aDrive("NV-0002", {})],
      sheet: { "storage.leaveAlone": ["NV-0002"] },
    };
    const told = (changes: BuildChanges) => {
      const { findings, stages } = evaluateSheet(aBuild(changes));
      return JSON.stringify([
        findings.map((f) => [f.says, f.remedy, f.evidence]),
        stages.map((s) => s.summary),
      ]);
    };
    expect(told(holding)).not.toContain("V-0001");
    expect(told(holding)).toContain("V-0002");
  });

  it("takes a consent only for a drive of the target, by what names it, and for what stands on it", () => {
    const contents = [{ part: "p", sizeBytes: 1, kind: "ext4", label: "old", mountedAt: ["/mnt"] }];
    const context = aBuild({ drives: [aDrive("NV-0001", { contents })] });
    const agree = (drive: string, typed: string) =>
      consentTo(context, drive, typed, "J. Pell", "2026-11-20T08:00:00Z");
    expect(agree("NV-0001", "v-0001")).toMatchObject({
      ok: true,
      value: { holds: 'ext4 "old"', typed: "v-0001" },
    });
    expect(agree("NV-0001", "0001").ok).toBe(false);
    expect(agree("NV-0002", "V-0002").ok).toBe(false);
    const [asked] = consentViews(context);
    expect(asked).toMatchObject({ holds: 'ext4 "old" at /mnt', given: null });
    expect(JSON.stringify(asked?.asks)).not.toContain("V-0001");
  });

  it("signs nothing by an edit: neither a consent nor a waiver", () => {
    const before = aBuild().sheet;
    const consent = {
      drive: "NV-0001",
      typed: "V-0001",
      holds: "nothing found",
      by: "J. Pell",
      at: "2026-11-20T08:00:00Z",
    };
    const waiver = {
      key: "x",
      reason: "for no reason at all",
      by: "J. Pell",
      at: "2026-11-20T08:00:00Z",
      basis: null,
    };
    const signed = { ...before, storage: { ...before.storage, erase: [consent] } };
    expect(signedAnew(before, signed)).toContain("Erasing a drive is confirmed by identifying the drive");
    expect(signedAnew(before, { ...before, waivers: [waiver] })).toContain("with a reason");
    expect(signedAnew(signed, signed)).toBeNull();
    expect(signedAnew(signed, before)).toBeNull();
  });
});
