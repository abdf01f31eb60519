import { describe, expect, it } from "vitest";
import { sees } from "../../../tests/support/steps";
import { aBuild, aDrive, shippedProfile, type BuildChanges } from "../../../tests/support/builds";
import { aStick, bothCairns, card, onShelf, runs } from "../../../tests/support/firing-roads";
import { targetKind } from "../image";
import { isGuard, operationSchema } from "../work";
import { deriveSteps, evaluateSheet, roadLines, waysOf } from ".";

const stone = onShelf("i6", { name: "Cairn 6.7", version: "6.7", fileName: "cairn-6.7.iso" });
const stony: BuildChanges = {
  profiles: bothCairns,
  drives: [card],
  shelf: [stone],
  sheet: { "boot.secureBoot": "off" },
};
const ids = (changes: BuildChanges): string[] => deriveSteps(aBuild(changes)).map((s) => s.id);
const nas = [shippedProfile("cistern-nas-9"), shippedProfile("cistern-nas-13")];
const appliance = (osVersion: string): BuildChanges => ({
  profile: nas[1],
  profiles: nas,
  image: { profile: "cistern-nas", version: "13.0", fileName: "cistern-13.tar", inside: null },
  facts: {
    system: { osId: "cistern", osName: `Cistern NAS ${osVersion}`, osVersion },
    controller: { present: true, virtualMedia: "not licensed" },
  },
  sheet: { "image.road": "convert", "boot.secureBoot": "off" },
});

describe("a stepping stone", () => {
  it("becomes steps of the build: its own image, a guard of its own, media out before each restart", () => {
    const made = ids(stony);
    expect(made.slice(0, 4)).toEqual(["identity", "firmware", "stone1-media-in", "stone1-one-time"]);
    expect(made.indexOf("stone1-guard-disk")).toBe(made.indexOf("stone1-screen-disk") - 1);
    expect(made.indexOf("stone1-media-out")).toBe(made.indexOf("stone1-restart") - 1);
    expect(made.indexOf("stone1-restart")).toBeLessThan(made.indexOf("media-in"));
    expect(made.filter((id) => id === "firmware")).toHaveLength(1);
    expect(new Set(made).size).toBe(made.length);
    const steps = deriveSteps(aBuild(stony));
    expect(sees(steps.find((s) => s.id === "stone1-media-in"))).toEqual([
      "cairn-6.7.iso is shown as connected",
    ]);
    expect(steps.find((s) => s.id === "screen-upgrade-choice")?.never).toEqual([
      { of: "screen", screen: "upgrade-choice", shows: "The word Install next to the marked choice" },
    ]);
    for (const s of steps) expect(operationSchema.safeParse(s).success, s.id).toBe(true);
  });

  it("costs the time of both", () => {
    const seconds = (changes: BuildChanges): number => evaluateSheet(aBuild(changes)).totals.likelySeconds;
    expect(seconds(stony)).toBeGreaterThan(seconds({}) + 1200);
  });

  it("is nothing where the hardware does not force it", () => {
    expect(ids({ ...stony, drives: [aDrive("NV-0001", {})] })).not.toContain("stone1-media-in");
  });
});

describe("a road that keeps the system", () => {
  it("erases nothing, guards what it changes, saves lists first, and the words on the screens say upgrade", () => {
    const changes = { profiles: bothCairns, facts: runs("6.7"), sheet: { "image.road": "upgrade" } };
    const steps = deriveSteps(aBuild(changes));
    expect(steps.filter(isGuard).map((s) => s.id)).toEqual([
      "guard-disk",
      "guard-confirm",
      "readback-confirm",
    ]);
    expect(steps.some((s) => s.deeds.some((d) => d.kind === "drives overwritten"))).toBe(false);
    const saved = steps.find((s) => s.id === "save-lists");
    expect(saved?.do[0]).toContain("guests");
    expect(saved?.do.join(" ")).toContain("All guests are shut down or moved");
    expect(steps.find((s) => s.id === "screen-disk")?.do.join(" ")).toContain("Cairn Hypervisor 6.7");
    expect(steps.some((s) => s.id.startsWith("first-network"))).toBe(false);
  });

  it("inside the running system needs no media, and no rule about media speaks", () => {
    const context = aBuild(appliance("9.10"));
    const made = deriveSteps(context).map((s) => s.id);
    expect(made.slice(0, 6)).toEqual([
      "identity",
      "save-lists",
      "screen-keys",
      "screen-upload",
      "guard-convert",
      "screen-convert",
    ]);
    expect(made).not.toContain("media-in");
    expect(waysOf(context, [])).toBeNull();
    const codes = evaluateSheet(context).findings.map((f) => f.code);
    expect(codes.filter((c) => /media|not-inspected|boot\.inside/.test(c))).toEqual([]);
  });

  it("over two jumps goes through both, and says so beside the other roads", () => {
    const context = aBuild(appliance("9.3"));
    expect(deriveSteps(context).map((s) => s.id)).toEqual(
      expect.arrayContaining(["stone1-screen-train", "stone1-restart", "screen-convert", "restart"]),
    );
    const [fresh, upgrade, convert] = roadLines(context);
    expect(fresh).toMatchObject({ open: true, loses: expect.arrayContaining(["dataset keys"]) });
    expect(upgrade).toMatchObject({ open: false, legs: [] });
    expect(convert).toMatchObject({
      open: true,
      keeps: expect.arrayContaining(["dataset keys", "data pools"]),
      legs: [
        { words: "upgrade Cistern NAS 9.10", through: "running system", image: null },
        { words: "convert Cistern NAS 13", through: "running system", image: "Cairn 9.0" },
      ],
    });
  });
});

describe("steps by each way", () => {
  const by = (way: string, more: BuildChanges["sheet"] = {}): string[] =>
    ids({ sticks: [aStick()], sheet: { "image.way": way, ...more } }).filter((id) =>
      /stick|read-back|burn|serve|media|one-time/.test(id),
    );

  it.each([
    ["virtual media", {}, ["media-in", "one-time", "media-out"]],
    ["stick", {}, ["write-stick", "read-back", "media-in", "one-time", "media-out"]],
    [
      "stick",
      { "image.stick.key": "ST-0007" },
      ["guard-stick", "write-stick", "read-back", "media-in", "one-time", "media-out"],
    ],
    [
      "stick",
      { "image.stick.key": "ST-0007", "image.stick.ready": true },
      ["media-in", "one-time", "media-out"],
    ],
    ["network", {}, ["serve", "media-in", "one-time", "media-out"]],
    ["disc", {}, ["burn", "media-in", "one-time", "media-out"]],
  ])("%s %j", (way, more, expected) => expect(by(way, more)).toEqual(expected));

  it("a USB stick of the inventory is named by its serial before it is overwritten", () => {
    const other = {
      key: "OTHER-99",
      entry: { ...aStick().entry, serial: "OTHER-9999", label: "M. Arkle's", holds: "photos" },
    };
    const context = aBuild({
      sticks: [aStick(), other],
      sheet: { "image.way": "stick", "image.stick.key": "ST-0007" },
    });
    const steps = deriveSteps(context);
    expect(steps.find((s) => s.id === "guard-stick")).toMatchObject({
      drives: [{ id: "ST-0007", proof: "0007" }],
      leaveAlone: [{ tail: "9999", name: "M. Arkle's", holds: "photos" }],
    });
    expect(steps.find((s) => s.id === "write-stick")?.measures).toEqual([
      { of: "transfer", way: "stick", through: "ST-0007", bytes: 731_906_048 },
    ]);
  });

  it("one stick is written for the second leg only after the first was started from it", () => {
    const made = ids({
      ...stony,
      sticks: [aStick()],
      sheet: { "image.way": "stick", "image.stick.key": "ST-0007" },
    });
    const at = (id: string) => made.indexOf(id);
    expect(at("stone1-read-back")).toBeLessThan(at("stone1-media-in"));
    expect(at("write-stick")).toBeGreaterThan(at("stone1-restart"));
    expect(at("read-back")).toBeLessThan(at("media-in"));
  });

  it("begins with saving where something worth keeping stands, and names what the profile loses", () => {
    const saved = (changes: BuildChanges) => deriveSteps(aBuild(changes)).find((s) => s.id === "save-lists");
    expect(saved({})).toBeUndefined();
    const contents = [{ part: "p", sizeBytes: 1, kind: "ext4", label: "db", mountedAt: [] }];
    expect(saved({ drives: [aDrive("NV-0001", { contents })] })).toMatchObject({
      records: "Backup location",
      do: [expect.stringContaining("licence, guests"), expect.stringContaining('ext4 "db"')],
    });
    expect(saved({ facts: runs("6.7") })?.title).toBe("Back up what this installation erases");
  });

  it("a default log-in is named at the screen that changes it", () => {
    const hopper = shippedProfile("hopper-backup-3");
    const step = deriveSteps(aBuild({ profile: hopper, profiles: [hopper] })).find(
      (s) => s.id === "first-default-login",
    );
    expect(step?.do.at(-1)).toContain("This changes the default login backup / as printed on the console");
  });
});

it.each([
  [{ media: "card", presentedBy: "module" }, "flash card"],
  [{ media: "flash", presentedBy: "VD 0" }, "hardware array"],
  [{ media: "virtual", presentedBy: null }, "hardware array"],
  [{ media: "usb", presentedBy: null }, "stick"],
  [{ media: "nvme", presentedBy: null }, "drive"],
] as const)("a target of %j is a %s", (drive, kind) => expect(targetKind(drive)).toBe(kind));
