import { describe, expect, it } from "vitest";
import {
  buildOrder,
  isInterfaceName,
  newInterface,
  portsBelow,
  stackBelow,
  withInterface,
  type Interface,
} from ".";
import { circles, interfaceSchema, tagOf } from "./interface";

const A = "02:61:0a:00:14:01";
const B = "02:61:0a:00:14:02";
const of = (kind: string, name: string, on: string[], more: object = {}): Interface =>
  interfaceSchema.parse({ kind, name, on, ...more });
const all = [
  of("bridge", "br0", ["bond0.20"], { vlanAware: true }),
  of("vlan", "bond0.20", ["bond0"], { vlan: 20 }),
  of("bond", "bond0", [A, B]),
];

describe("what stands on ports", () => {
  it("is a stack down to the ports, made from below", () => {
    expect(stackBelow(all, "br0").map((i) => i.name)).toEqual(["br0", "bond0.20", "bond0"]);
    expect(portsBelow(all, "br0")).toEqual([A, B]);
    expect(tagOf(all, "br0")).toBe(20);
    expect(tagOf(all, "bond0")).toBeNull();
    expect(buildOrder(all).map((i) => i.name)).toEqual(["bond0", "bond0.20", "br0"]);
  });
  it("a circle is told and ends every walk", () => {
    const round = [of("bridge", "br0", ["br1"]), of("bridge", "br1", ["br0"]), of("bond", "bond0", [A])];
    expect(circles(round)).toEqual(["br0", "br1"]);
    expect(portsBelow(round, "br0")).toEqual([]);
    expect(buildOrder(round).map((i) => i.name)).toEqual(["bond0", "br0", "br1"]);
  });
  it("a new one takes the first name that is free", () => {
    expect(newInterface("bond", all, A)).toMatchObject({ name: "bond1", on: [A], mode: "active-backup" });
    expect(newInterface("virtual switch", all, null)).toMatchObject({ name: "switch0", on: [], groups: [] });
  });
  it.each([
    ["br0", true],
    ["bond0.20", true],
    ["a234567890123456", false],
    ["", false],
    ["-br0", false],
    ["br 0", false],
    ["br/0", false],
    ["brücke", false],
    ["$(reboot)", false],
    ["all", false],
  ])("the name %s: %s", (name, fits) => expect(isInterfaceName(name)).toBe(fits));
});

describe("an interface that is renamed", () => {
  const bond = (name: string) =>
    newInterface("bond", [], null) && { ...newInterface("bond", [], null), name };
  const vlan = { ...newInterface("vlan", [], "bond1"), name: "mgmt" };
  const before = { interfaces: [bond("bond1"), vlan, bond("bond2")], carrier: "mgmt" };

  it("takes along what stands on it, and the management address", () => {
    expect(withInterface(before, 0, bond("lag0")).interfaces[1]!.on).toEqual(["lag0"]);
    expect(withInterface(before, 1, { ...vlan, name: "oob" }).carrier).toBe("oob");
  });

  it("takes nothing away from another one whose name it has on its way, or had", () => {
    const onTheWay = withInterface(before, 2, bond("bond1"));
    expect(onTheWay.interfaces[1]!.on).toEqual(["bond1"]);
    const after = withInterface(onTheWay, 2, bond("bond10"));
    expect(after.interfaces.map((i) => [i.name, i.on])).toEqual([
      ["bond1", []],
      ["mgmt", ["bond1"]],
      ["bond10", []],
    ]);
    const carrier = withInterface({ ...before, carrier: "bond1" }, 2, bond("bond1"));
    expect(withInterface(carrier, 2, bond("x")).carrier).toBe("bond1");
  });
});
