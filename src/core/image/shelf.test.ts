import { describe, expect, it } from "vitest";
import { shippedProfile, soundInside } from "../../../tests/support/builds";
import { draftImage, imageSchema, shelfMarks, type Inspection } from ".";

const profiles = ["cairn-hypervisor-9", "cairn-hypervisor-6", "lowland-server-7", "cistern-nas-13"].map(
  shippedProfile,
);
const draft = (name: string, inside: Partial<Inspection> = {}) =>
  draftImage(name, soundInside({ volumeId: null, ...inside }), profiles);
const not = { answer: "does not" as const, reason: "" };
const yes = { answer: "boots" as const, reason: "" };
const row = (legacy: boolean, x64: boolean, aa64: boolean) => ({
  legacy: legacy ? yes : not,
  x64: x64 ? yes : not,
  ia32: not,
  aa64: aa64 ? yes : not,
});
const verdict = (...args: Parameters<typeof row>) => ({
  verdict: { optical: row(...args), stick: row(...args) },
});

describe("a dropped file is drafted", () => {
  it.each([
    ["cairn-hypervisor-9.0.1-ostler.iso", "cairn-hypervisor", "9.0.1", "Cairn Hypervisor 9.0.1"],
    ["Cairn_6.7_x86_64.iso", "cairn-hypervisor", "6.7", "Cairn Hypervisor 6.7"],
    ["lowland-x86_64-7.4.iso", "lowland-server", "7.4", "Lowland Server 7.4"],
    ["lowland-server-8.1.iso", "lowland-server", "8.1", "Lowland Server 8.1"],
    ["something-3.2-amd64.iso", "not known yet", "3.2", "something-3.2-amd64"],
    ["alder-vm.qcow2", "not known yet", "not known yet", "alder-vm"],
    ["something-3.2.img.bz2", "not known yet", "3.2", "something-3.2"],
    ["\u0000.iso", "not known yet", "not known yet", "\u0000"],
  ])("%s", (file, profile, version, name) => {
    expect(draft(file)).toMatchObject({ profile, version, name, fileName: file });
  });

  it("by its volume name where the file name says nothing", () => {
    expect(draft("download(3).iso", { volumeId: "CISTERN_13" })).toMatchObject({ profile: "cistern-nas" });
  });

  it.each([
    [verdict(true, true, false), "x86_64", ["uefi", "legacy"]],
    [verdict(false, true, true), "x86_64", ["uefi"]],
    [verdict(false, false, true), "aarch64", ["uefi"]],
    [verdict(true, false, false), "x86_64", ["legacy"]],
    [verdict(false, false, false), "x86_64", []],
  ])("with processor and modes as they are inside", (inside, architecture, bootModes) => {
    expect(draft("a.iso", inside)).toMatchObject({ architecture, bootModes });
  });

  it.each([
    ["millrace-12-netinst.iso", "network installer"],
    ["sedge-14-bootonly.iso", "boot only"],
    ["sedge-14-disc1.iso", "full"],
  ])("%s is the variant %s", (file, variant) => expect(draft(file).variant).toBe(variant));
});

describe("the shelf", () => {
  const image = (changes: object) =>
    imageSchema.parse({
      schemaVersion: 1,
      name: "One",
      profile: "lowland-server",
      version: "7.4",
      architecture: "x86_64",
      sizeBytes: 100,
      bootModes: ["uefi"],
      ...changes,
    });
  const sum = { algorithm: "sha256" as const, value: "a".repeat(64) };
  const marks = (...images: object[]) => {
    const shelf = images.map((i, n) => ({ id: `i${n}`, image: image(i) }));
    const found = shelfMarks(shelf, () => null, "2026-11-20");
    return shelf.map(({ id }) => (found.get(id) ?? []).map((m) => m.words));
  };

  it("has nothing to say of two different images", () => {
    expect(marks({}, { version: "7.3" })).toEqual([[], []]);
  });

  it("shows two entries for one file: by checksum whichever was computed, or by volume and size", () => {
    expect(
      marks(
        { published: sum },
        {
          name: "Two",
          version: "x",
          computed: { checksum: { ...sum, value: "A".repeat(64) }, at: "2026-11-01T00:00:00Z", by: "J" },
        },
      ),
    ).toEqual([["same file as Two"], ["same file as One"]]);
    const inside = { inside: { found: soundInside(), fileName: "a", at: "2026-11-01T00:00:00Z", by: "J" } };
    expect(marks(inside, { ...inside, name: "Two", version: "7.5" })[1]).toEqual(["same file as One"]);
  });

  it("shows two entries for one release, and not an installer beside its guest drivers", () => {
    expect(marks({}, { name: "Two", version: "7.4" })[0]).toEqual(["same release as Two"]);
    expect(marks({}, { purpose: "guest drivers" })).toEqual([[], []]);
  });

  it("shows what is stale, by the image's own date before its profile's", () => {
    expect(marks({ supportEnds: "2026-01-01" })).toEqual([["support ended 1 Jan 2026"]]);
    const old = [{ id: "i", image: image({}) }];
    const cairn6 = shippedProfile("cairn-hypervisor-6");
    expect(shelfMarks(old, () => cairn6, "2026-11-20").get("i")?.[0]?.words).toBe(
      "support ended 15 Nov 2025",
    );
    expect(
      marks({
        published: sum,
        computed: { checksum: { ...sum, value: "b".repeat(64) }, at: "2026-11-01T00:00:00Z", by: "J" },
      }),
    ).toEqual([["does not match the published checksum"]]);
  });
});
