import { expect, it } from "vitest";
import { z } from "zod";
import { partWords, sheetSchema } from ".";
import { PARTS } from "./part-words";

interface Tree {
  properties?: Record<string, Tree>;
  items?: Tree;
  oneOf?: Tree[];
  anyOf?: Tree[];
}

const ACCOUNTS = [
  {
    name: "root",
    role: "super-user",
    logIn: "key",
    keys: [{ line: "ssh-ed25519 AAAA", until: "2027-01-31" }],
  },
  { name: "backup", role: "service", logIn: "none", keys: [] },
];

it("shows the parts of a field by the labels of its form, and leaves out what is empty", () => {
  expect(partWords("answers.accounts", ACCOUNTS)).toBe(
    "root, role superuser, login by key, public keys ssh-ed25519 AAAA, valid until 31 Jan 2027; backup, role service, login by none",
  );
  expect(partWords("boot.settings", [{ key: "power.loss", found: "", done: "set" }])).toBe(
    "power.loss, done set",
  );
});

it("calls networks by their names, and a flag by its label alone", () => {
  const bridge = { kind: "bridge", name: "br0", on: ["eno1"], segment: "s1", address: "", vlanAware: true };
  expect(partWords("network.interfaces", [bridge], (id) => (id === "s1" ? "storage" : undefined))).toBe(
    "bridge br0, on eno1, network storage, VLAN-aware",
  );
});

it("has a label for every part that the fields store", () => {
  const keys = (path: string): string[] => {
    const [stage, field] = path.split(".") as [string, string];
    const { items } = (z.toJSONSchema(sheetSchema, { io: "input", unrepresentable: "any" }) as Tree)
      .properties![stage]!.properties![field]!;
    return (items!.oneOf ?? items!.anyOf ?? [items!]).flatMap((one) => Object.keys(one.properties!));
  };
  for (const path of ["answers.accounts", "network.services", "network.interfaces", "boot.settings"]) {
    expect(keys(path).length).toBeGreaterThan(2);
    expect({ path, nameless: keys(path).filter((k) => PARTS[path]?.[k] === undefined) }).toEqual({
      path,
      nameless: [],
    });
  }
});

it("shows what is no list as every field does", () => {
  expect(partWords("network.services", [])).toBe("–");
  expect(partWords("network.gateway", "10.1.2.1")).toBe("10.1.2.1");
  expect(partWords("answers.accounts", null)).toBe("–");
});
