import { describe, expect, it } from "vitest";
import {
  carries,
  cableLabels,
  deviceSchema,
  endKey,
  farPort,
  formatVlans,
  holdsVlan,
  parseVlans,
  portNames,
  segmentsOfCable,
  segmentSchema,
  switchPortSchema,
  type Cable,
} from ".";

describe("a list of VLANs", () => {
  it.each([
    ["10, 20-29", "10,20-29"],
    ["30 20-29 19", "19-30"],
    ["5;5;4", "4-5"],
    ["", ""],
  ])("%s is kept as %s", (text, kept) => {
    const read = parseVlans(text);
    expect(read.ok && formatVlans(read.value)).toBe(kept);
    expect(parseVlans(kept)).toEqual(read);
  });
  it.each(["0", "4095", "29-20", "1-2-3", "ten", "-3", "10 $(reboot)"])("%s is refused by its part", (text) =>
    expect(parseVlans(text)).toMatchObject({
      ok: false,
      problems: [{ message: expect.stringMatching(/is not a VLAN/) }],
    }),
  );
  it("holds what lies in a stretch, and nothing where it cannot be read", () =>
    expect([holdsVlan("20-29", 25), holdsVlan("20-29", 30), holdsVlan("x", 1)]).toEqual([
      true,
      false,
      false,
    ]));
});

describe("a port of a switch", () => {
  const access = switchPortSchema.parse({ name: "1", native: 10 });
  const flat = switchPortSchema.parse({ name: "1" });
  const trunk = switchPortSchema.parse({ name: "1", mode: "trunk", native: 10, allowed: "20,30-39" });
  const bare = switchPortSchema.parse({ name: "1", mode: "trunk", allowed: "20" });
  it.each([
    ["an access port its VLAN", access, 10, "untagged"],
    ["an access port no other", access, 20, null],
    ["a port without VLANs the one network", flat, null, "untagged"],
    ["a port without VLANs no VLAN", flat, 10, null],
    ["a trunk its native one", trunk, 10, "untagged"],
    ["a trunk what is allowed", trunk, 35, "tagged"],
    ["a trunk nothing else", trunk, 40, null],
    ["a trunk without a native VLAN no frame without a tag", bare, null, null],
  ] as const)("carries: %s", (_, port, vlan, how) => expect(carries(port, vlan)).toBe(how));
  it("is counted, or named otherwise", () => {
    const device = deviceSchema.parse({
      id: "a",
      name: "a",
      portCount: 2,
      ports: [{ name: "2" }, { name: "sfp1" }],
    });
    expect(portNames(device)).toEqual(["1", "2", "sfp1"]);
  });
});

describe("a cable", () => {
  const mac = "02:61:0a:00:14:01";
  const devices = [
    deviceSchema.parse({ id: "sw", name: "wrk-sw1", kind: "switch", ports: [{ name: "3", native: 10 }] }),
    deviceSchema.parse({ id: "panel", name: "panel A", kind: "patch panel" }),
  ];
  const run = (id: string, a: Cable["a"], b: Cable["b"]): Cable => ({
    id,
    a,
    b,
    lengthMetres: null,
    label: "C-1",
  });
  const toSwitch = run("1", { mac: mac.toUpperCase() }, { device: "sw", port: "3" });
  it("leads from a machine's port to the switch, whichever end was written first", () => {
    expect(farPort({ devices, cables: [toSwitch] }, mac)).toMatchObject({
      name: "3",
      device: { id: "sw" },
      port: { native: 10 },
    });
    expect(farPort({ devices, cables: [{ ...toSwitch, a: toSwitch.b, b: toSwitch.a }] }, mac)?.name).toBe(
      "3",
    );
    expect(farPort({ devices, cables: [] }, mac)).toBeNull();
    expect(farPort({ devices: [], cables: [toSwitch] }, mac)).toBeNull();
  });
  it("is followed through patch panels, and not round in a circle", () => {
    const panel = (port: string) => ({ device: "panel", port });
    const through = [run("1", { mac }, panel("7")), run("2", panel("7"), { device: "sw", port: "4" })];
    expect(farPort({ devices, cables: through }, mac)).toMatchObject({ name: "4", port: null });
    expect(farPort({ devices, cables: [through[0]!, run("2", panel("7"), panel("7"))] }, mac)).toBeNull();
  });
  it("has a label for each end, this end first", () =>
    expect(cableLabels(toSwitch, (end) => endKey(end))).toEqual({
      atA: `C-1: mac ${mac} to sw 3`,
      atB: `C-1: sw 3 to mac ${mac}`,
    }));
  it("carries the networks that both of its ends let through", () => {
    const segment = (id: string, vlan: number | null) =>
      segmentSchema.parse({ id, name: id, purpose: "guests", vlan, prefix: "10.61.10.0/24" });
    const segments = [segment("a", 10), segment("b", 20), segment("c", null)];
    expect(segmentsOfCable({ devices }, segments, toSwitch).map((s) => s.id)).toEqual(["a"]);
    expect(segmentsOfCable({ devices }, segments, run("2", { mac }, { device: "sw", port: "9" }))).toEqual(
      [],
    );
  });
});
