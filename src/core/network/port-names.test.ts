import { describe, expect, it } from "vitest";
import { predictPortNames, type PortAt } from ".";
import { unreadBefore } from "./port-names";

const read: PortAt = {
  ...{ kind: "ethernet", mac: "02:61:0A:00:15:01", pci: "0000:3b:00.0", onboard: null, slot: null },
  ...{ isMulti: false, portName: null },
};
const names = (changes: Partial<PortAt> = {}) =>
  predictPortNames({ ...read, ...changes }).map(
    (n) => `${n.by} ${n.name}${n.when.length > 0 ? ` if ${n.when.join(", ")}` : ""}`,
  );
const MAC = "mac enx02610a001501";

describe("the names that a port may get", () => {
  it("are in decimal where the bus is in hexadecimal, and begin with those that go first", () => {
    expect(names()).toEqual(["path enp59s0", MAC]);
    expect(names({ onboard: 1, slot: 3 })).toEqual(["onboard eno1", "slot ens3", "path enp59s0", MAC]);
    expect(names({ pci: "0001:02:1f.0" })).toEqual(["path enP1p2s31", MAC]);
    expect(names({ pci: "10000:01:00.0" })).toEqual(["path enP65536p1s0", MAC]);
    expect(names({ kind: "wireless", pci: "02:00.0" })[0]).toBe("path wlp2s0");
  });

  it("carry the function where there are several, and the port of a card with more than one", () => {
    expect(names({ pci: "3b:00.1" })).toEqual(["path enp59s0f1", MAC]);
    expect(names({ isMulti: true, portName: "p0" })).toEqual(["path enp59s0f0np0", MAC]);
    expect(names({ devPort: 1 })).toEqual(["path enp59s0d1", MAC]);
  });

  it("are all of those that may be, with what would have to be so, where something was not read", () => {
    expect(names({ isMulti: undefined })).toEqual(["path enp59s0 if single", "path enp59s0f0 if multi", MAC]);
    expect(names({ portName: undefined })).toEqual(["path enp59s0 if portName", MAC]);
    expect(unreadBefore({ ...read, onboard: undefined, slot: undefined })).toEqual(["onboard", "slot"]);
    expect(unreadBefore(read)).toEqual([]);
  });

  it("take the slot of a bridge for one of several functions only, since more may hang on it", () => {
    expect(names({ bridgeSlot: 4 })).toEqual(["path enp59s0", MAC]);
    expect(names({ bridgeSlot: 4, isMulti: true })).toEqual(["slot ens4f0", "path enp59s0f0", MAC]);
  });

  it("are none by the place where there is none, and none by a MAC that was made up", () => {
    expect(names({ pci: null })).toEqual([MAC]);
    expect(names({ pci: "usb1/1-2", isOwnMac: false })).toEqual([]);
    expect(names({ onboard: 16_384 })).toEqual(["path enp59s0", MAC]);
  });

  it("say which the kernel cannot take", () => {
    const long = predictPortNames({ ...read, pci: "0001:81:00.1", portName: "p0v12" })[0]!;
    expect([long.name, long.isTooLong]).toEqual(["enP1p129s0f1np0v12", true]);
  });
});
