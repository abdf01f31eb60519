import { describe, expect, it } from "vitest";
import { aBuild, aDrive } from "../../../tests/support/builds";
import type { Effect, Sight } from "../work";
import { carryOut, look, worldOf, type World } from ".";

const data = [{ part: "1", sizeBytes: 1, kind: "ext4", label: "archive", mountedAt: [] }];
const { facts } = aBuild({ drives: [aDrive("NV-0001", { contents: data })] }).machine!.document;
const ground = { facts, systems: [{ profile: "cairn", id: "cairn-os", name: "Cairn" }], prefixLength: 24 };

const done = (...effects: Effect[]): World =>
  effects.reduce((world, effect) => {
    const next = carryOut(world, effect, ground);
    if (!next.ok) throw new Error(next.problems[0]?.message);
    return next.value;
  }, worldOf(ground));
const sees = (world: World, sight: Sight) => look(world, sight, world);

const stick = { medium: "stick", name: "blue stick" } as const;
const insert: Effect = { do: "insert medium", ...stick, holds: "cairn.iso", mac: null };
const choose = (once: boolean): Effect => ({ do: "start next from", ...stick, mode: "uefi", once });
const erase: Effect = { do: "write drives", drives: ["NV-0001"], erases: true, of: "target" };
const install: Effect = { do: "install system", profile: "cairn", version: "9.0" };
const restart: Effect = { do: "restart" };
const out: Effect = { do: "remove medium", ...stick };

describe("a start", () => {
  it("takes the medium once where that was chosen, and always where it stays first", () => {
    expect(done(insert, choose(true)).running).toEqual({ of: "medium", medium: "stick" });
    expect(done(insert, choose(true), erase, install, restart).running).toEqual({
      of: "system",
      isNew: true,
    });
    expect(done(insert, choose(false), erase, install, restart).running.of).toBe("medium");
    expect(done(insert, choose(false), erase, install, out, restart).running.of).toBe("system");
  });

  it("ends with no device where nothing is installed and nothing is in", () => {
    const world = done(restart);
    expect(world.running).toEqual({ of: "no device" });
    expect(sees(world, { of: "boot", ends: "no device" })).toBe("seen");
    expect(sees(world, { of: "boot", ends: "installed system" })).toBe("not seen");
  });
});

it("what was written is lost, and the system stands there with its name and its version", () => {
  const world = done(insert, choose(true), erase, install, { do: "set name", name: "wrk-hv1" });
  expect(world.lost).toEqual(["NV-0001"]);
  expect(world.facts.drives[0]!.contents).toMatchObject([{ mountedAt: ["/"] }]);
  expect(world.facts.system).toMatchObject({ osId: "cairn-os", osName: "Cairn 9.0", hostName: "wrk-hv1" });
  expect(facts.drives[0]!.contents).toEqual(data);
});

it("a second medium of one kind does not go in", () => {
  const twice = carryOut(done(insert), insert, ground);
  expect(!twice.ok && twice.problems[0]?.message).toBe("Another stick is in place already.");
});

it("what a world does not hold is unknown, and never seen", () => {
  const world = done(insert);
  const holds = (text: string): Sight => ({
    of: "medium",
    medium: "stick",
    is: "in",
    holds: text,
    mac: null,
  });
  expect([sees(world, holds("cairn.iso")), sees(world, holds("other.iso"))]).toEqual(["seen", "not seen"]);
  expect(sees(world, { of: "statement", says: "no smoke" })).toBe("unknown");
  expect(sees(world, { of: "output", shows: "ONLINE" })).toBe("unknown");
  expect(sees(world, { of: "label", part: "serial number", reads: "another" })).toBe("not seen");
});
