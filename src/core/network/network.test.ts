import { describe, expect, it } from "vitest";
import {
  addressSortKey,
  boundKeysOf,
  addressKey,
  contains,
  edgeOf,
  inRange,
  isAddress,
  isPrivateName,
  netmaskOf,
  nextFreeAddress,
  parsePrefix,
  segmentPlan,
  segmentSchema,
} from ".";

const segment = segmentSchema.parse({
  id: "mgmt",
  name: "Works management",
  purpose: "management",
  prefix: "10.61.10.0/28",
  gateway: "10.61.10.1",
  dhcp: [{ from: "10.61.10.8", to: "10.61.10.11" }],
  reservations: [{ mac: "02:61:0a:00:00:09", address: "10.61.10.5", name: "printer" }],
});

describe("addresses", () => {
  it.each([
    ["10.61.10.0/24", "10.61.10.7", true],
    ["10.61.10.0/24", "10.61.11.7", false],
    ["10.61.10.9/24", "10.61.10.1", true],
    ["fd61:7a1e::/48", "fd61:7a1e:0:10::7", true],
    ["fd61:7a1e::/48", "10.61.10.7", false],
    ["nonsense", "10.61.10.7", false],
  ])("%s contains %s: %s", (prefix, address, answer) => expect(contains(prefix, address)).toBe(answer));

  it.each(["10.61.10", "10.61.10.256", "0x7f.1", "fe80::1%eno1", "", "10.61.10.7/24"])(
    "%j is no address",
    (text) => expect(isAddress(text)).toBe(false),
  );

  it.each(["10.61.10.0/33", "10.61.10.0", "10.61.10.0/-1", "fd61::/129", "10.0.0.0/8/9"])(
    "%s is no prefix",
    (text) => expect(parsePrefix(text)).toBeNull(),
  );

  it("knows the two addresses that no machine may have, and that a /31 has none", () => {
    expect(edgeOf("10.61.10.0/24", "10.61.10.0")).toBe("network");
    expect(edgeOf("10.61.10.0/24", "10.61.10.255")).toBe("broadcast");
    expect(edgeOf("10.61.10.0/31", "10.61.10.0")).toBeNull();
  });

  it("finds one address under two spellings", () => {
    expect(addressKey("FD61:7A1E:0::1")).toBe(addressKey("fd61:7a1e::1"));
    expect(addressKey("fd61:7a1e")).toBeNull();
  });

  it("compares as numbers, not as text", () => {
    expect(inRange("10.61.10.9", { from: "10.61.10.8", to: "10.61.10.100" })).toBe(true);
  });

  it("writes masks and knows names that nobody can own", () => {
    expect(netmaskOf(28)).toBe("255.255.255.240");
    expect(["marrowby.example", "works.internal", "works.local.net"].map(isPrivateName)).toEqual([
      true,
      true,
      false,
    ]);
  });
});

it("plans a segment in stretches without gaps, and finds the next free address", () => {
  const taken = new Map([[addressSortKey("10.61.10.2")!, "wrk-hv1"]]);
  expect(segmentPlan(segment, taken).map((s) => `${s.from} ${s.count} ${s.use}`)).toEqual([
    "10.61.10.0 1 edge",
    "10.61.10.1 1 gateway",
    "10.61.10.2 1 taken",
    "10.61.10.3 2 free",
    "10.61.10.5 1 reserved",
    "10.61.10.6 2 free",
    "10.61.10.8 4 pool",
    "10.61.10.12 3 free",
    "10.61.10.15 1 edge",
  ]);
  expect(nextFreeAddress(segmentPlan(segment, taken))).toBe("10.61.10.3");
});

it("refuses a gateway and a DHCP range outside the prefix", () => {
  const bad = segmentSchema.safeParse({
    ...segment,
    gateway: "10.61.11.1",
    dhcp: [{ from: "10.61.10.8", to: "10.61.12.1" }],
  });
  expect(bad.error?.issues.map((i) => i.path.join("."))).toEqual(["gateway", "dhcp"]);
});

describe("sort keys of addresses", () => {
  it("sort as the addresses do, each family apart, with one spelling for each", () => {
    const texts = ["::1", "9.255.255.255", "10.0.0.2", "10.0.0.10", "fd61::2", "FD61:0::10", "fe80::1"];
    const keys = texts.map((t) => addressSortKey(t)!);
    expect(keys.toSorted()).toEqual(keys);
    expect(new Set(keys.map((k) => k.length))).toEqual(new Set([32]));
    expect(addressSortKey("fd61:0:0::10")).toBe(addressSortKey("FD61::0010"));
    expect(addressSortKey("10.0.0.2")).toBe("00000000000000000000ffff0a000002");
    expect(["", "10.0.0", "10.0.0.2/24", "fe80::1%eth0"].map(addressSortKey)).toEqual([
      null,
      null,
      null,
      null,
    ]);
  });

  it("bound a prefix", () => {
    const bounds = boundKeysOf("10.61.10.77/26")!;
    expect([bounds.first, bounds.last]).toEqual(["10.61.10.64", "10.61.10.127"].map(addressSortKey));
    expect(boundKeysOf("10.61.10.0")).toBeNull();
  });
});
