import { describe, expect, it } from "vitest";
import { dnsmasqBoot, dnsmasqProxy, iscBoot, judgeBootConfigs, keaBoot, type BootPlan } from "..";

const PLAN: BootPlan = {
  script: "http://10.61.10.5:4370/boot.ipxe",
  ...{ tftp: "10.61.10.1", http: "http://10.61.10.1/boot/", folder: "/srv/tftp" },
};
const SITE = { script: PLAN.script, prefixes: ["10.61.10.0/24"] };
const POOL = { pools: [{ pool: "10.61.10.100 - 10.61.10.150" }] };
const kea = (more: object = {}): string =>
  JSON.stringify(
    { Dhcp4: { ...keaBoot(PLAN), subnet4: [{ id: 1, subnet: "10.61.10.0/24", ...POOL, ...more }] } },
    null,
    1,
  );
const dnsmasq = `dhcp-range=10.61.10.100,10.61.10.150,255.255.255.0,1h\n${dnsmasqBoot(PLAN)}`;
const isc = `subnet 10.61.10.0 netmask 255.255.255.0 { range 10.61.10.100 10.61.10.150; }\n${iscBoot(PLAN)}`;
const told = (...texts: string[]): string[] =>
  judgeBootConfigs(texts, SITE).map(
    ({ severity, text, line, says }) => `${severity} ${text + 1}:${line ?? "-"} ${says}`,
  );

it.each([
  ["dnsmasq", dnsmasq],
  ["a second dnsmasq", dnsmasqProxy(PLAN, ["10.61.10.0"])],
  ["Kea", kea()],
  ["the ISC syntax", isc],
])("finds nothing wrong with what Derrick writes for %s", (_, text) => {
  expect(told(text)).toEqual([]);
});

it("says nothing of a second dnsmasq that gives out no addresses, and stops at two that do", () => {
  expect(told(dnsmasq, dnsmasqProxy(PLAN, ["10.61.10.0"]))).toEqual([]);
  expect(told(isc, kea())).toEqual([
    expect.stringMatching(/^stop 2:\d+ Two servers assign addresses of 10\.61\.10\.0\/24/),
  ]);
});

describe("a wrong boot file", () => {
  it.each([
    [
      "dnsmasq",
      dnsmasq.replace("tag:bios,undionly.kpxe", "tag:bios,snponly.efi"),
      /stop 1:22 A PC with BIOS \(architecture 0\) gets snponly\.efi/,
    ],
    [
      "dnsmasq",
      dnsmasq.replace("tag:x64,snponly.efi", "tag:x64,undionly.kpxe"),
      /stop 1:24 A PC with UEFI \(architecture 7\) gets undionly\.kpxe/,
    ],
    [
      "Kea",
      kea().replace('"snponly.efi"', '"undionly.kpxe"'),
      /stop 1:24 A PC with UEFI \(architecture 7\) gets undionly\.kpxe/,
    ],
    [
      "ISC",
      isc.replace('"snponly.efi"', '"ipxe-arm64.efi"'),
      /stop 1:20 A PC with UEFI \(architecture 7\) gets ipxe-arm64\.efi/,
    ],
    [
      "HTTP",
      isc.replace('"http://10.61.10.1/boot/snponly.efi"', '"snponly.efi"'),
      /stop 1:26 Firmware that uses HTTP boot \(architecture 16\) gets snponly\.efi/,
    ],
    [
      "TFTP",
      kea().replace('"undionly.kpxe"', '"http://10.61.10.1/undionly.kpxe"'),
      /stop 1:12 Firmware that uses TFTP \(architecture 0\) gets a URL \(http:\/\/10\.61\.10\.1\/undionly\.kpxe\)/,
    ],
  ])("for an architecture is a stop, with its line: %s", (_, text, says) => {
    const all = told(text);
    expect(all[0]).toMatch(/^stop 1:\d+ /);
    expect(all.join("\n")).toMatch(says);
  });

  it("for everybody is a caution, and one that loads itself for ever a stop", () => {
    const flat = "dhcp-range=10.61.10.100,10.61.10.150\ndhcp-boot=undionly.kpxe\n";
    expect(told(flat)).toEqual([
      expect.stringMatching(/^caution 1:2 All clients get undionly\.kpxe/),
      expect.stringMatching(/^stop 1:2 undionly\.kpxe is iPXE/),
    ]);
    expect(told('subnet 10.61.10.0 netmask 255.255.255.0 {\n filename "undionly.kpxe";\n}')).toHaveLength(2);
  });

  it("that leads iPXE elsewhere is a caution", () => {
    expect(told(dnsmasq.replaceAll(PLAN.script, "http://10.61.10.77/menu.ipxe"))).toEqual([
      expect.stringMatching(
        /^caution 1:21 iPXE gets http:\/\/10\.61\.10\.77\/menu\.ipxe instead of the boot script of Derrick/,
      ),
    ]);
  });
});

it("tells a reservation inside a range, but of a dnsmasq, which never lends it", () => {
  const reserved = kea({
    reservations: [{ "hw-address": "02:61:0a:00:00:09", "ip-address": "10.61.10.120", hostname: "strip" }],
  });
  expect(told(reserved)).toEqual([
    expect.stringMatching(/^caution 1:69 10\.61\.10\.120 is reserved for strip/),
  ]);
  expect(told(`${dnsmasq}dhcp-host=02:61:0a:00:00:09,10.61.10.120,strip\n`)).toEqual([]);
});

it("takes the folder of a boot file for what it is for, where its name does not tell", () => {
  const arm =
    "dhcp-userclass=set:ipxe,iPXE\ndhcp-match=set:a,option:client-arch,11\ndhcp-boot=tag:a,arm64/ipxe.efi\n";
  expect(told(arm)).toEqual([]);
  expect(told(arm.replace("arm64/", ""))).toEqual([
    expect.stringMatching(/stop 1:3 A 64-bit ARM with UEFI \(architecture 11\) gets ipxe\.efi/),
  ]);
});

it("says of what it cannot read, and of what gives nothing, that it judged nothing", () => {
  expect(told("hello")).toEqual([expect.stringMatching(/^caution 1:- Unknown format \(supported/)]);
  expect(told("dhcp-range=10.61.10.100,10.61.10.150\n")).toEqual([
    expect.stringMatching(/caution 1:- It assigns no boot file/),
  ]);
  for (const text of ["", "{", '{"Dhcp4":', 'filename "', "dhcp-boot=", "\0".repeat(99), "} } }"])
    expect(() => told(text, dnsmasq)).not.toThrow();
});
