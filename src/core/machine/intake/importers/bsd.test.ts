import { describe, expect, it } from "vitest";
import { bundleOf } from "../../../../../tests/support/formats";
import { emptyMachine, mergeReadings, readTexts, renderBsdCollector, systemDrives } from "../..";
import { IMPORTERS } from ".";

const GEOM = `Geom name: ada0
Providers:
1. Name: ada0
   Mediasize: 480103981056 (447G)
   Sectorsize: 512
   Stripesize: 4096
   Stripeoffset: 0
   Mode: r2w2e3
   descr: Alder 480
   lunid: 50014ee2b1230001
   ident: ALD480B1
   rotationrate: 0
   fwsectors: 63
   fwheads: 16

Geom name: ada1
Providers:
1. Name: ada1
   Mediasize: 4000787030016 (3.6T)
   Sectorsize: 512
   Mode: r0w0e0
   descr: Caldbeck 4000
   ident: CDB4T1
   rotationrate: 5400
   fwsectors: 63

Geom name: cd0
Providers:
1. Name: cd0
   Mediasize: 0 (0B)
   descr: optical drive
   ident: (null)
   fwsectors: 0
`;
const GPART = `Geom name: ada0
modified: false
state: OK
scheme: GPT
Providers:
1. Name: ada0p1
   Mediasize: 272629760 (260M)
   efimedia: HD(1,GPT,5d0b3c2a-1111-4222-8333-444455556666,0x28,0x82000)
   rawuuid: 5d0b3c2a-1111-4222-8333-444455556666
   rawtype: c12a7328-f81f-11d2-ba4b-00c04fc93ec9
   label: efiboot0
   type: efi
2. Name: ada0p2
   Mediasize: 479000000000 (446G)
   rawuuid: 5d0b3c2a-2222-4222-8333-444455556666
   rawtype: 516e7cba-6ecf-11d6-8ff8-00022d09712b
   label: system
   type: sedge-zfs
Consumers:
1. Name: ada0
   Mediasize: 480103981056 (447G)
   Mode: r2w2e3
`;
const IFCONFIG = `em0: flags=8963<UP,BROADCAST,RUNNING,PROMISC,SIMPLEX,MULTICAST> metric 0 mtu 1500
	options=4e504bb<RXCSUM,TXCSUM>
	ether 02:61:1E:00:00:01
	media: Ethernet autoselect (1000baseT <full-duplex>)
	status: active
em1: flags=8822<BROADCAST,SIMPLEX,MULTICAST> metric 0 mtu 1500
	ether 02:61:1e:00:00:02
	media: Ethernet autoselect
	status: no carrier
lo0: flags=8049<UP,LOOPBACK,RUNNING,MULTICAST> metric 0 mtu 16384
	inet 127.0.0.1 netmask 0xff000000
bridge0: flags=8843<UP,BROADCAST,RUNNING,SIMPLEX,MULTICAST> metric 0 mtu 1500
	ether 02:61:1e:00:00:99
	inet 10.61.30.12 netmask 0xffffff00 broadcast 10.61.30.255
	inet6 fe80::1%bridge0 prefixlen 64 scopeid 0x3
	inet6 fd61:7a1e::12 prefixlen 48
	member: em0 flags=143<LEARNING,DISCOVER,AUTOEDGE,AUTOPTP>
`;
const NETSTAT = `Routing tables

Internet:
Destination        Gateway            Flags     Netif Expire
default            10.61.30.1         UGS      bridge0
127.0.0.1          link#3             UH           lo0
`;
const PCICONF = `em0@pci0:0:25:0:	class=0x020000 rev=0x04 hdr=0x00 vendor=0xf0a1 device=0x1502 subvendor=0x1028 subdevice=0x0001
    vendor     = 'Silica'
    device     = 'gigabit port'
    class      = network
    subclass   = ethernet
none0@pci0:0:31:3:	class=0x0c0500 rev=0x04 hdr=0x00 vendor=0xf0a1 device=0x1c22
    vendor     = 'Silica'
    class      = serial bus
`;
const SYSCTL = `hw.model: Silica Rook 4
hw.ncpu: 8
hw.physmem: 17031176192
hw.machine_arch: amd64
kern.smp.cores: 4
kern.smp.threads_per_core: 2
`;
const CAMCONTROL = `<Alder 480 0B21>                   at scbus0 target 0 lun 0 (ada0,pass0)
<Caldbeck 4000 1.00>               at scbus1 target 0 lun 0 (pass1,ada1)
<optical drive 1.0>                at scbus2 target 0 lun 0 (cd0,pass2)
`;
const SETTINGS = `collector.settings=1
host.name=cl-bsd1
firmware.mode=uefi
root.source=sedge-root/ROOT/default
root.kind=zfs
root.size.kib=460000000
root.free.kib=400000000
time.synchronised=yes
`;
const bundle = bundleOf("cl-bsd1", {
  settings: SETTINGS,
  sysctl: SYSCTL,
  "geom-disk": GEOM,
  gpart: GPART,
  camcontrol: CAMCONTROL,
  ifconfig: IFCONFIG,
  netstat: NETSTAT,
  pciconf: PCICONF,
});

describe("a bundle of a BSD system", () => {
  const intake = readTexts([{ name: "bundle.txt", text: bundle }]);
  const { facts } = mergeReadings(emptyMachine(), intake.readings, "2026-11-24T08:00:00Z").document;

  it("is read whole, each section by its tool", () => {
    expect(intake.rejected).toEqual([]);
    expect(intake.readings.map((r) => r.tool)).toEqual([
      ...["settings", "sysctl", "geom disk", "gpart", "camcontrol", "ifconfig", "netstat", "pciconf"],
    ]);
  });

  it("tells processor, memory and firmware mode", () => {
    expect(facts.processors).toMatchObject({
      model: "Silica Rook 4",
      architecture: "x86_64",
      cores: 4,
      threads: 8,
    });
    expect(facts.memory?.recognisedBytes).toBe(17_031_176_192);
    expect(facts.firmware?.mode).toBe("uefi");
  });

  it("tells drives with what stands on them, and says of the one without a table that nobody has read it", () => {
    expect(facts.drives.map((d) => [d.id, d.media, d.sizeBytes, d.firmware])).toEqual([
      ["ALD480B1", "flash", 480_103_981_056, "0B21"],
      ["CDB4T1", "spinning", 4_000_787_030_016, "1.00"],
    ]);
    expect(facts.drives[0]?.contents?.map((c) => [c.part, c.kind, c.label])).toEqual([
      ["ada0p1", "vfat", "efiboot0"],
      ["ada0p2", "zfs_member", "system"],
    ]);
    expect(facts.drives[1]?.contents).toBeNull();
  });

  it("tells ports with their link, and through which bridge they have their address", () => {
    expect(facts.ports.map((p) => [p.mac, p.seenAs, p.link, p.memberOf])).toEqual([
      ["02:61:1e:00:00:01", "em0", "up", "bridge0"],
      ["02:61:1e:00:00:02", "em1", "down", null],
    ]);
    expect(facts.system).toMatchObject({
      gateway: "10.61.30.1",
      addresses: [
        { interface: "bridge0", address: "10.61.30.12", prefixLength: 24 },
        { interface: "bridge0", address: "fd61:7a1e::12", prefixLength: 48 },
      ],
    });
  });

  it("tells PCI devices by place, class, ids and driver", () => {
    expect(facts.pci.map((p) => [p.slot, p.classId, p.ids, p.driver, p.className])).toEqual([
      ["00:19.0", "0200", "f0a1:1502", "em", "ethernet"],
      ["00:1f.3", "0c05", "f0a1:1c22", null, "serial bus"],
    ]);
  });

  it("tells the drive of the system by its pool, once zpool names the members", () => {
    const status =
      "  pool: sedge-root\n state: ONLINE\nconfig:\n\n\tNAME           STATE     READ WRITE CKSUM\n\tsedge-root     ONLINE       0     0     0\n\t  /dev/ada0p2  ONLINE       0     0     0\n\nerrors: No known data errors\n";
    const more = readTexts([
      { name: "bundle.txt", text: bundle },
      { name: "zpool.txt", text: status },
    ]);
    const both = mergeReadings(emptyMachine(), more.readings, "2026-11-24T08:00:00Z").document.facts;
    expect(systemDrives(both)).toMatchObject({ by: "pool", drives: [{ id: "ALD480B1" }] });
  });
});

it.each([
  ["geom disk", "Geom name: ada0\nProviders:\n   descr: x\n"],
  ["ifconfig", "em0: flags=8863<UP> metric 0 mtu 1500"],
  ["pciconf", "em0@pci0:0:25:0:\tclass=0x"],
])("%s cut off is refused or read as far as it goes, and never throws", (_, text) => {
  for (let cut = 0; cut <= text.length; cut += 1) readTexts([{ name: "x", text: text.slice(0, cut) }]);
});

it("asks with its script for nothing that no importer reads, beside what it says in words", () => {
  const script = renderBsdCollector({ postUrl: null });
  const sections = [...script.matchAll(/^ {2}section (\S+)/gm)].map((m) => m[1]!.replaceAll("-", " "));
  const tools = new Set(IMPORTERS.map((i) => i.tool));
  const known: Record<string, string> = { "os release": "os-release" };
  expect(sections.filter((s) => !tools.has(known[s] ?? s))).toEqual([]);
  expect(script).not.toMatch(
    /\b(rm|dd|mount|gpart (create|add|destroy)|newfs|zpool (create|destroy))\s+-?\w*\s*\/dev/,
  );
});
