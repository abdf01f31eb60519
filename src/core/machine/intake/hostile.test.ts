import { describe, expect, it } from "vitest";
import { bundleOf, capture } from "../../../../tests/support/formats";
import { emptyMachine, mergeReadings, readTexts } from "..";

const AT = "2026-11-27T08:00:00.000Z";
const read = (text: string) => readTexts([{ name: "t", text }]);
const factsOf = (...texts: string[]) =>
  mergeReadings(
    emptyMachine(),
    texts.flatMap((text) => read(text).readings),
    AT,
  ).document.facts;
const told = (text: string): string[] => {
  const { rejected, readings } = read(text);
  return [...rejected.flatMap((r) => r.problems), ...readings.flatMap((r) => r.warnings)].map(
    (p) => p.message,
  );
};
const lsblk = (...devices: object[]): string =>
  JSON.stringify({
    blockdevices: devices.map((d, i) => ({ name: `sd${i}`, type: "disk", size: 1e12, ...d })),
  });

describe("one long line", () => {
  // Each of these once took a time that grows with the square of its length; the test has seconds.
  const long = (of: string) => of.repeat(Math.floor(32_000 / of.length));
  it.each([
    ["mdstat members", `Personalities : [raid1]\nmd0 : active raid1 ${long("a")}\nunused devices: <none>\n`],
    [
      "mdstat brackets",
      `Personalities : [raid1]\nmd0 : active raid1 ${long("[1")}\nunused devices: <none>\n`,
    ],
    [
      "mdadm",
      `/dev/md0:\n Version : 1.2\n State : clean\n Number Major Minor\n 0 8 1 0 ${long(" ")}x\n${long(" ")}\n`,
    ],
    ["dmidecode", `Handle 0x0001, DMI type 17, 40 bytes\n\t${long(" ")}\n\t${long("\t ")}x\n`],
    ["blkid", `/dev/sda1: TYPE="ext4" ${long("A")}\n/dev/sdb1: TYPE="xfs" ${long('A="')}\n`],
    [
      "camcontrol",
      `<ALDER 480> at scbus0 target 0 lun 0 (ada0)\n<a> at scbus1 target 0 lun 0 ${long("(")}\n`,
    ],
    ["lspci", `00:00.0 "Host bridge [0600]" ${long('"')} ${long("[0")}\n`],
    ["zpool", `  pool: a\n state: ONLINE\nconfig:\n\t${long("a ")}\n\t${long(" ")}\nerrors: none\n`],
    ["efibootmgr", `BootOrder: ${long("0001,")}\nBoot0001* ${long("\t ")}\n`],
  ])("of %s is read in one walk", (_, text) => {
    for (let i = 0; i < 20; i += 1) expect(read(text)).toHaveProperty("readings");
  });

  it("that no tool prints is refused with its number and length", () =>
    expect(
      told(`Personalities : [raid1]\nmd0 : active ${"a".repeat(60_000)}\nunused devices: <none>\n`),
    ).toEqual([expect.stringMatching(/^line 2 has 60013 characters/)]));
  it("and more lines or items than there can be are refused", () => {
    expect(told("a\n".repeat(500_000))).toEqual([expect.stringMatching(/^more than 400000 lines/)]);
    const many = Array.from({ length: 25_000 }, () => ({ local: "10.0.0.1", family: "inet", prefixlen: 8 }));
    const link = { ifname: "eno1", link_type: "ether", address: "02:00:00:00:00:01", addr_info: many };
    expect(told(JSON.stringify([{ ifindex: 1, ...link }]))).toEqual([
      expect.stringMatching(/^ip address: 25000 addresses, more than any machine has/),
    ]);
  });
});

describe("a value that cannot be", () => {
  it("is left out and told, and the rest of its drive is kept", () => {
    const text = lsblk({ serial: "A", "log-sec": "abc", "phy-sec": 0.5 }, { serial: "n".repeat(500) });
    const drives = factsOf(text).drives;
    expect(drives[0]).toMatchObject({ id: "A", logicalSectorBytes: null, sizeBytes: 1e12 });
    expect(drives[1]?.serial).toHaveLength(200);
  });
  it.each([
    ["an MTU", { mtu: 2 ** 60 }, /mtu is 1152921504606847000, which is impossible; skipped/],
    ["a prefix", { addr_info: [{ family: "inet", local: "10.0.0.1", prefixlen: -1 }] }, /addresses is .*-1/],
  ])("is left out and told: %s", (_, more, words) => {
    const link = { ifname: "eno1", link_type: "ether", address: "02:00:00:00:00:01", operstate: "UP" };
    const text = JSON.stringify([{ ifindex: 1, ...link, addr_info: [], ...more }]);
    expect(told(text)).toEqual([expect.stringMatching(words)]);
    expect(factsOf(text).ports).toMatchObject([{ mac: link.address, link: "up", mtu: null, addresses: [] }]);
  });
  it.each(["constructor", "__defineGetter__", "valueOf", "__proto__"])("is only a word: %s", (word) => {
    const { drives } = factsOf(lsblk({ serial: word, fstype: word, tran: word, vendor: word, zoned: word }));
    expect(drives).toMatchObject([{ id: word, san: null, memberOf: [], contents: [{ kind: word }] }]);
    const pool = `  pool: ${word}\n state: ${word}\nconfig:\n\n\t${word}  ${word}\n\t  ${word}-0  ${word}\n\t    sda  ONLINE\n\nerrors: none\n`;
    expect(factsOf(pool).sets).toMatchObject([{ name: word, health: "unknown" }]);
    const named =
      "collector.starts=1\ndrive sda ends=55aa code=yes\nvolume sda1\nfile machine=constructor signature=0 /a.efi\n";
    const [sda] = factsOf(lsblk({ name: "sda", serial: "A" }), named).drives;
    expect(sda?.efiVolumes?.[0]?.files).toMatchObject([{ arch: "other" }]);
  });
  it.each([2000, 20_000])("is a list of %i lists in each other", (deep) => {
    expect(told(`{"blockdevices":${"[".repeat(deep)}${"]".repeat(deep)}}`)).toEqual([
      expect.stringMatching(/^this JSON is nested more than 100 levels deep/),
    ]);
  });
  it("is spoken of by its tool and its field", () => {
    expect(told('{"blockdevices":[{"name":"sda","size":5}]}')).toEqual([
      'lsblk prints a text as "blockdevices.0.type", and this text has none. Check that it is the whole output of this tool.',
    ]);
    expect(told('{"blockdevices":{}}')).toEqual([
      expect.stringMatching(/^lsblk prints a list as "blockdevices"/),
    ]);
  });
});

it("signs that are not seen are not in the facts", () => {
  const text = lsblk({ serial: "A\u0000B", model: "AL\u202eDER\u001b[31m\u2066", label: "\ud800x" });
  expect(factsOf(text).drives).toMatchObject([{ serial: "A B", model: "AL DER [31m" }]);
});

describe("what the exit status of smartctl says", () => {
  const drive = (exit_status: number, more: object = {}) =>
    factsOf(
      JSON.stringify({
        smartctl: { exit_status },
        serial_number: "A",
        device: { name: "/dev/sda" },
        ...more,
      }),
    ).drives[0]?.health;
  it.each([
    [8, "reported as failing"],
    [16, "an attribute is below its threshold"],
    [32, "an attribute was below its threshold once"],
    [64, "errors in its error log"],
    [128, "errors in its self-test log"],
  ])("%i: %s", (status, words) => expect(drive(status)?.warnings).toEqual([words]));
  it("comes with what the drive says beside it", () => {
    expect(drive(8)?.passed).toBe(false);
    expect(drive(0)?.warnings ?? []).toEqual([]);
    const status = { passed: false, scsi: { ie_string: "MEDIUM ERROR - UNRECOVERED READ" } };
    const log = { ata_smart_error_log: { extended: { count: 12 } } };
    expect(drive(64 + 8, { smart_status: status, ...log })?.warnings).toEqual([
      "reported as failing: MEDIUM ERROR - UNRECOVERED READ",
      "errors in its error log: 12",
    ]);
    const failed = { code: { string: "Background long" }, result: { value: 7, string: "Failed in segment" } };
    expect(drive(128, { scsi_self_test_0: failed })?.selfTest).toMatchObject({
      kind: "Background long",
      passed: false,
    });
  });
});

it("slot 0 is a slot", () => {
  const block =
    "Slot:\t01:00.0\nClass:\tEthernet controller [0200]\nVendor:\tSilica [1af0]\nDevice:\tX [0001]\nPhySlot:\t0\n\n";
  expect(factsOf(block).pci).toMatchObject([{ place: "slot 0" }]);
});

it("virtual drives and ports have the maker, the place and the driver of what carries them", () => {
  const facts = factsOf(
    capture("server-bios-small", "lsblk.json"),
    capture("server-bios-small", "lshw.json"),
  );
  const drive = facts.drives.find((d) => d.seenAs === "vda");
  expect(drive).toMatchObject({
    ...{ maker: "Example Virtual, Inc.", controller: "00:05.0", driver: "virtio_blk" },
  });
  expect(facts.ports).toMatchObject([{ seenAs: "ens6", pci: "00:06.0", driver: "virtio_net" }]);
});

it("a bundle that is cut in the end of a section says so", () => {
  const bundle = bundleOf("b", {
    lsblk: lsblk({ serial: "A" }),
    lsusb: "Bus 001 Device 002: ID 0951:1666 Stick",
  });
  const at = bundle.lastIndexOf("end lsusb") + "end lsusb li".length;
  expect(told(bundle.slice(0, at))).toEqual([
    expect.stringMatching(/^section lsusb has no line count: it is truncated, and skipped/),
    expect.stringMatching(/truncated/),
  ]);
});
