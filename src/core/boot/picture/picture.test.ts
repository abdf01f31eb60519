import { describe, expect, it } from "vitest";
import { aBuild, aDrive, MAC, soundInside, type BuildChanges } from "../../../../tests/support/builds";
import type { Moment } from ".";

const picture = (changes: BuildChanges = {}) => aBuild(changes).boot!;
const at = (moment: Moment, changes: BuildChanges = {}) =>
  picture(changes).moments.find((m) => m.moment === moment)!;
const unlicensed = (virtualMedia: "not licensed" | "unknown"): BuildChanges => ({
  facts: { controller: { present: true, virtualMedia } },
});

describe("the starts of a build", () => {
  it("go from the medium, once, to the new system, also with the medium left in", () => {
    const { moments, story } = picture();
    expect(moments.map((m) => m.verdict)).toEqual(["as it is", "as wanted", "as wanted", "as wanted"]);
    expect(moments.map((m) => m.mediumIn)).toEqual([false, false, true, true]);
    expect(story).toBe(
      "The next restart, once, boots the installer of Cairn Hypervisor 9.0 from the virtual CD; after that it boots Cairn Hypervisor 9 from Alder 480.",
    );
  });

  it("end in the installer again where the medium stays first for good", () => {
    const first: BuildChanges = { sheet: { "boot.start": "media first in the boot order" } };
    expect(at("first restart", first).verdict).toBe("installer again");
    expect(picture(first).story).toContain(
      "and so does every later restart while the medium stays connected",
    );
  });

  it("start from the network by the port of the plan, and from nothing where the road needs no medium", () => {
    const net = at("to install", { sheet: { "image.way": "network" } });
    expect(net.ends).toBe("boots the installer of Cairn Hypervisor 9.0 from the network (eno1)");
    expect(net.endsAt).toBe(MAC);
  });

  it("do not reach a virtual disc that may not be mapped, and hang on it where nobody knows", () => {
    const never = at("to install", unlicensed("not licensed"));
    expect(never.verdict).toBe("medium not started");
    expect(never.tries[0]?.why).toBe(
      "The firmware cannot see virtual CD: the licence of the management controller excludes virtual media.",
    );
    const perhaps = at("to install", unlicensed("unknown"));
    expect(perhaps.verdict).toBe("as wanted");
    expect(perhaps.depends.map((d) => d.on)).toContain("virtual CD is enabled");
  });

  it.each<[string, BuildChanges, RegExp]>([
    [
      "a stick written for the other mode",
      { sheet: { "image.stick.written": "legacy" } },
      /USB stick has no loader at the default path/,
    ],
    [
      "an image without a loader for it",
      { image: { bootModes: ["legacy"], inside: null } },
      /USB stick has no loader at the default path/,
    ],
  ])("pass over %s", (_, changes, why) => {
    const { sheet = {} } = changes;
    const install = at("to install", { ...changes, sheet: { ...sheet, "image.way": "stick" } });
    expect(install.verdict).toBe("medium not started");
    expect(install.tries[0]?.why).toMatch(why);
  });

  it("refuse an unsigned loader with secure boot, and take it without", () => {
    const unsigned: BuildChanges = { image: { inside: null, loaderSigned: "unsigned" } };
    expect(at("to install", unsigned).tries[0]?.reason).toBe("not signed");
    expect(at("to install", { ...unsigned, sheet: { "boot.secureBoot": "off" } }).verdict).toBe("as wanted");
  });

  it("refuse a system that is not signed once secure boot is on again, and not its installer", () => {
    const unsigned: BuildChanges = {
      ...{
        image: { inside: null, loaderSigned: "unsigned" },
        sheet: { "boot.secureBoot": "off to install" },
      },
      profile: { secureBoot: "must be off" },
    };
    expect(at("to install", unsigned).verdict).toBe("as wanted");
    expect(at("first restart", unsigned).tries.map((t) => t.reason)).toContain("not signed");
  });

  it("say that the list was not read, and carry a loader that nobody looked at to the answer", () => {
    expect(picture().isListRead).toBe(false);
    const { inside: _inside, ...rest } = { inside: soundInside() };
    const open = at("to install", { image: { inside: null, loaderSigned: "unknown", ...rest } });
    expect(open.depends.map((d) => d.on).join()).toContain("is signed by a key of this firmware");
  });

  it("in legacy mode begin with the target, and a drive of 4096-byte sectors starts nothing there", () => {
    const legacy = { sheet: { "boot.mode": "legacy" } };
    expect(at("first restart", legacy).verdict).toBe("as wanted");
    const native = { ...legacy, drives: [aDrive("NV-0001", { logicalSectorBytes: 4096 })] };
    const { tries, verdict } = at("first restart", native);
    expect(tries[0]?.reason).toBe("sectors unreadable");
    expect(verdict).not.toBe("as wanted");
  });

  it("never name a drive by its serial", () => {
    expect(JSON.stringify(picture().moments.map((m) => [m.ends, m.tries.map((t) => t.name)]))).not.toContain(
      "V-0001",
    );
  });

  it("are none without a machine", () => expect(aBuild({ machine: null }).boot).toBeNull());
});
