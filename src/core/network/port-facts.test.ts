import { describe, expect, it } from "vitest";
import type { Facts, Port } from "../machine";
import { portNamesOf, portNameWords } from ".";

const device = (slot: string): Facts["pci"][number] => ({
  ...{ slot, className: "Ethernet controller", classId: "0200", maker: "Silica", device: "adapter" },
  ...{ ids: "f0a1:1521", subsystem: null, driver: null, iommuGroup: null, place: null },
});
const words = (seenAs: string, pci: string | null, more: Partial<Port> = {}, devices: string[] = []) => {
  const port: Port = {
    ...{ mac: "02:61:0a:00:15:01", seenAs, otherNames: [], kind: "ethernet", link: "up", pci },
    ...{ speedMegabits: null, maxMegabits: null, driver: null, mtu: null, memberOf: null, addresses: [] },
    ...more,
  };
  return portNameWords(portNamesOf({ pci: devices.map(device) }, port));
};
const UNREAD =
  "or another, if the firmware numbers it as an onboard port; or another, if the firmware reports a hot-plug slot for its location";

describe("what a Linux will call a port of a machine", () => {
  it("is what one called it, where such a one was read", () => {
    expect(words("enp1s0", "01:00.0")).toBe("enp1s0");
    expect(words("enp24s0f1", "18:00.1")).toBe("enp24s0f1");
    expect(words("enp24s0f0", "18:00.0")).toBe("enp24s0f0");
    expect(words("eno1", "18:00.0")).toBe("eno1");
    expect(words("eno1", "18:00.0", { otherNames: ["enp24s0f0"] })).toBe("eno1");
    expect(words("ens3f0np0", "18:00.0", { otherNames: ["enp24s0f0np0"] })).toBe("ens3f0np0");
  });

  it("is each of those that may be, with its condition, where another system was read", () => {
    const own = "its driver reports no port name";
    expect(words("nic0", "18:00.1")).toBe(`enp24s0f1, if ${own}; ${UNREAD}`);
    expect(words("nic0", "18:00.0")).toBe(
      `enp24s0, if the device has one function and ${own}; or enp24s0f0, if the device has several functions and ${own}; ${UNREAD}`,
    );
    expect(words("nic0", "18:00.0", {}, ["18:00.0", "18:00.1"])).toBe(`enp24s0f0, if ${own}; ${UNREAD}`);
  });

  it("goes by the MAC where no place on the bus is known, and says that a place would go before", () => {
    const place = "or another, if its PCI location was not collected";
    expect(words("nic0", null)).toBe(`enx02610a001501; ${UNREAD}; ${place}`);
  });

  it("is what a port of a virtual machine was read with, whose own bus is no place", () => {
    expect(words("enp0s5", null)).toBe("enp0s5");
    expect(words("eth0", null, { otherNames: ["enp0s5", "ens5"] })).toBe("ens5");
  });
});
