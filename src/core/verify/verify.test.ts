import { describe, expect, it } from "vitest";
import { aBuild, aDrive, MAC } from "../../../tests/support/builds";
import { contentWords, factsSchema, type Drive } from "../machine";
import { compareWithPlan, expectationSchema, planExpectations, tally } from ".";

const archive = { part: "sda1", sizeBytes: 9, kind: "ext4", label: "archive", mountedAt: ["/mnt"] };
const other = aDrive("SA-9", { sizeBytes: 9e11, contents: [archive] });
const context = aBuild({
  drives: [aDrive("NV-0001", {}), other],
  sheet: { "storage.leaveAlone": ["SA-9"] },
});
const plan = planExpectations(context);

const part = (more: object = {}) => ({
  part: "p1",
  sizeBytes: 1,
  kind: "ext4",
  label: null,
  mountedAt: [],
  ...more,
});
const holding = (id: string, ...contents: object[]): Drive =>
  aDrive(id, { contents: contents as Drive["contents"] });
const system = {
  osId: "cairn",
  osName: "Cairn Hypervisor 9.0",
  osVersion: "9.0",
  hostName: "wrk-hv1",
  gateway: "10.61.10.1",
  nameServers: ["10.61.10.2"],
  timeZone: "Europe/London",
  locale: "en_GB.utf8",
  keyboard: "gb",
  clockFollows: true,
  rootSizeBytes: 100e9,
  rootFreeBytes: 80e9,
  addresses: [{ interface: "br0", address: "10.61.10.20", prefixLength: 24, dynamic: false }],
};
const port = { mac: MAC, seenAs: "eno1", kind: "ethernet" as const, link: "up" as const, memberOf: "br0" };
const ESP = part({ kind: "vfat", partUuid: "esp-1" });
const onTarget = holding("NV-0001", ESP, part({ part: "p2", mountedAt: ["/"] }));
/** The list of the firmware as the installer left it. */
const LISTED = {
  ...{ mode: "uefi" as const, secureBoot: true, order: ["0001", "0002"] },
  entries: [
    { id: "0001", label: "Cairn", active: true, kind: "disk", path: "HD(1,GPT,esp-1)/File(\\EFI\\a.efi)" },
    { id: "0002", label: "Port", active: true, kind: "network", path: `MAC(${MAC.replaceAll(":", "")},1)` },
  ],
};
const beside = { ...other, contents: [{ ...archive, mountedAt: [] }] };
const installed = {
  chassis: { serial: "OST-1" },
  firmware: LISTED,
  system,
  drives: [onTarget, beside],
  ports: [port],
};
const reading = {
  takenAt: "2026-11-20T09:00:00Z",
  now: "2026-11-20T09:05:00Z",
  since: "2026-11-20T08:50:00Z",
};
const compare = (changes: object, more: object = {}, asked = plan) =>
  compareWithPlan(asked, factsSchema.parse({ ...installed, ...changes }), { ...reading, ...more });
const line = (changes: object, id: string, more: object = {}) =>
  compare(changes, more).find((l) => l.id === id);
const ALL = plan.length;

it("finds a system that was built as planned", () => {
  expect(compare({}).filter((l) => l.verdict !== "as planned")).toEqual([]);
  expect(ALL).toBe(17);
});

it("says of the next start only what was read: nothing without the list, and what it hangs on where that is open", () => {
  const unread = line({ firmware: { mode: "uefi", secureBoot: true } }, "next-start");
  expect(unread).toMatchObject({ verdict: "not seen", found: "boot entries were not collected" });
  const open = line({ firmware: { ...LISTED, order: ["0002", "0001"] } }, "next-start");
  expect(open?.verdict).toBe("not seen");
  expect(open?.found).toContain("if the network of eno1 offers no boot file");
  const goodwill = line(
    { firmware: { ...LISTED, order: [], entries: LISTED.entries.slice(1) } },
    "next-start",
  );
  expect(goodwill?.verdict).toBe("not seen");
  expect(goodwill?.found).toContain("if this firmware adds every device to its boot entries");
});

it("says nothing of what was not looked at", () => {
  const lines = compareWithPlan(plan, factsSchema.parse({}), { ...reading, takenAt: null });
  expect(tally(lines)).toEqual({ "as planned": 0, differs: 0, "not seen": ALL });
});

it.each<[string, object, string]>([
  ["serial", { chassis: { serial: "OST-2" } }, "OST-2"],
  ["mode", { firmware: { mode: "legacy" } }, "legacy"],
  ["secure-boot", { firmware: { mode: "uefi", secureBoot: false } }, "off"],
  [
    "system",
    { system: { ...system, osName: "Cairn Hypervisor 90", osVersion: "90" } },
    "Cairn Hypervisor 90",
  ],
  [
    "system",
    { system: { ...system, osName: "Cairn Hypervisor 9.1", osVersion: "9" } },
    "Cairn Hypervisor 9.1",
  ],
  ["system", { system: { ...system, osId: "sedge", osName: "Sedge BSD 14" } }, "Sedge BSD 14"],
  [
    "address",
    { system: { ...system, addresses: [{ ...system.addresses[0], prefixLength: 16 }] } },
    "10.61.10.20/16",
  ],
  ["name-servers", { system: { ...system, nameServers: ["10.61.10.3"] } }, "10.61.10.3"],
  ["host-name", { system: { ...system, hostName: "localhost" } }, "localhost"],
  [
    "free-space",
    { system: { ...system, rootFreeBytes: 9e9 } },
    "9.00 GB (8.38 GiB) of 100 GB (93.1 GiB) free",
  ],
  ["clock", { system: { ...system, clockFollows: false } }, "the clock is not synchronised"],
  [
    "next-start",
    { drives: [holding("NV-0001", part({ mountedAt: ["/"] })), { ...beside, contents: [ESP] }] },
    "boots from Alder 480 (contents unknown)",
  ],
  ["untouched-SA-9", { drives: [onTarget, { ...other, contents: [] }] }, "nothing found"],
  ["untouched-SA-9", { drives: [onTarget] }, "the drive is missing"],
  ["port", { ports: [{ ...port, mac: "02:00:00:00:00:01" }] }, "missing; found 02:00:00:00:00:01"],
  ["port", { ports: [{ ...port, link: "down" }] }, "eno1: no link"],
  [
    "port",
    {
      ports: [
        { ...port, memberOf: null },
        { ...port, mac: "02:00:00:00:00:01", seenAs: "eno2" },
      ],
    },
    "10.61.10.20 is on br0 over eno2, not over eno1",
  ],
])("%s that differs is told with what was found: %j", (id, changes, found) => {
  expect(line(changes, id)).toMatchObject({ verdict: "differs", found });
});

describe("what the machine answers with", () => {
  const service = (port: number, protocol = "tcp") => ({ name: "x", port, protocol, from: ["mgmt"] });
  const asked = planExpectations(
    aBuild({ sheet: { "network.services": [service(22), service(123, "udp")] } }),
  );
  const on = (...all: [string, number, string?][]) => ({
    system: {
      ...system,
      listening: all.map(([address, port, protocol = "tcp"]) => ({
        address,
        port,
        protocol: protocol as "tcp",
      })),
    },
  });
  const told = (changes: object) => compare(changes, {}, asked).find((l) => l.id === "listening");
  it.each([
    [
      "both and nothing else",
      on(["0.0.0.0", 22], ["::", 22], ["*", 123, "udp"]),
      "as planned",
      "22/tcp, 123/udp",
    ],
    [
      "what is for itself alone does not count",
      on(["*", 22], ["*", 123, "udp"], ["127.0.0.1", 631], ["::1", 25]),
      "as planned",
      "22/tcp, 123/udp",
    ],
    [
      "one that nobody planned",
      on(["*", 22], ["*", 123, "udp"], ["10.61.10.20", 111]),
      "differs",
      "also listening: 111/tcp",
    ],
    [
      "one that is silent",
      on(["*", 22], ["*", 9090]),
      "differs",
      "not listening: 123/udp; also listening: 9090/tcp",
    ],
    ["unknown", { system }, "not seen", ""],
  ])("%s", (_, changes, verdict, found) =>
    expect(told(changes)).toMatchObject({
      planned: "22/tcp, 123/udp and no others",
      verdict,
      ...(found && { found }),
    }),
  );
  it("nothing is expected where no service is planned", () =>
    expect(plan.some((e) => e.id === "listening")).toBe(false));
});

it("the address of an interface is looked for on the port below it, through a bond and its VLAN", () => {
  const one = {
    kind: "vlan",
    name: "bond0.30",
    on: ["bond0"],
    vlan: 30,
    segment: "mgmt",
    address: "10.61.11.30",
    mtu: null,
  };
  const bond = {
    kind: "bond",
    name: "bond0",
    on: [MAC],
    mode: "802.3ad",
    hash: "layer2",
    segment: null,
    address: "",
    mtu: null,
  };
  const asked = planExpectations(aBuild({ sheet: { "network.interfaces": [bond, one] } }));
  const addresses = [{ interface: "bond0.30", address: "10.61.11.30", prefixLength: 24, dynamic: false }];
  const now = { system: { ...system, addresses }, ports: [{ ...port, memberOf: "bond0" }] };
  const found = compare(now, {}, asked).find((l) => l.id === "address-bond0.30");
  expect(found).toMatchObject({
    verdict: "as planned",
    found: "eno1, has 10.61.11.30 through bond0.30, link up",
  });
});

it.each([
  ["9.2", "9.0", "9.0", "differs"],
  ["9.2", "9.2", "9.2", "as planned"],
  ["9.2", "9.2.1", "9.2.1", "as planned"],
  ["9.2", "9", "9.2", "as planned"],
  ["9.2", "9", "9", "not seen"],
  ["9", "9.2", "9.2", "as planned"],
  ["9.2", "9.20", "9.20", "differs"],
])("version %s planned, %s told and %s in its name: %s", (version, osVersion, named, verdict) => {
  const asked = planExpectations(aBuild({ image: { version } }));
  const found = { system: { ...system, osVersion, osName: `Cairn Hypervisor ${named}` } };
  expect(compare(found, {}, asked).find((l) => l.id === "system")?.verdict).toBe(verdict);
});

const zfs = { ...system, rootSource: "rpool/ROOT/one", rootKind: "zfs" };
const guid = "5d0b3c2a-1111-4222-8333-444455556666";
const entry = {
  mode: "uefi",
  currentEntry: "0003",
  entries: [
    {
      id: "0003",
      label: "x",
      active: true,
      kind: "disk",
      path: `HD(1,GPT,${guid.toUpperCase()},0x800,0x100000)`,
    },
  ],
};
it.each<[string, object, string, RegExp]>([
  ["a mount", {}, "as planned", /mounted from .*V-0001/],
  [
    "a mount elsewhere",
    { drives: [holding("NV-0001"), holding("SA-9", part({ mountedAt: ["/"] }))] },
    "differs",
    /SA-9/,
  ],
  [
    "a mirror of which one member was planned",
    { drives: [onTarget, holding("SA-9", part({ mountedAt: ["/"] }))] },
    "differs",
    /V-0001.*; .*SA-9/,
  ],
  [
    "a ZFS root",
    { system: zfs, drives: [{ ...holding("NV-0001", part()), memberOf: ["pool rpool"] }, beside] },
    "as planned",
    /the root pool is on Alder 480 …V-0001/,
  ],
  [
    "a ZFS root elsewhere",
    { system: zfs, drives: [holding("NV-0001"), { ...beside, memberOf: ["pool rpool"] }] },
    "differs",
    /the root pool is on Alder 480 …SA-9/,
  ],
  [
    "a boot entry",
    { firmware: entry, drives: [holding("NV-0001", part({ partUuid: guid })), beside] },
    "as planned",
    /the firmware booted from Alder 480 …V-0001/,
  ],
  [
    "a boot entry elsewhere",
    { firmware: entry, drives: [holding("NV-0001"), holding("SA-9", part({ partUuid: guid }))] },
    "differs",
    /SA-9/,
  ],
  [
    "a label of the profile",
    { drives: [holding("NV-0001", part({ label: "CAIRN9" })), beside] },
    "as planned",
    /its label is on Alder 480 …V-0001/,
  ],
  [
    "contents and nothing else",
    { drives: [holding("NV-0001", part()), beside] },
    "not seen",
    /the collected data does not show the system drive/,
  ],
  [
    "nothing read",
    { drives: [aDrive("NV-0001", { contents: null }), beside] },
    "not seen",
    /the collected data does not show the system drive/,
  ],
  ["an absent target", { drives: [beside] }, "differs", /NV-0001 is missing/],
])("the system drive by %s: %s", (_, changes, verdict, found) => {
  expect(line(changes, "target")).toMatchObject({ verdict, found: expect.stringMatching(found) });
});

it("wants every member of a set, and none beside", () => {
  const asked = planExpectations(
    aBuild({
      drives: [aDrive("NV-0001", { seenAs: "a" }), aDrive("NV-0002", { seenAs: "b" })],
      sheet: { "storage.layout": "mirror", "storage.partners": [{ drive: "NV-0002", role: "member" }] },
    }),
  );
  const verdict = (...drives: Drive[]) =>
    compare({ drives }, {}, asked).find((l) => l.id === "target")?.verdict;
  const root = (id: string) => holding(id, part({ mountedAt: ["/"] }));
  expect(verdict(root("NV-0001"), root("NV-0002"))).toBe("as planned");
  expect(verdict(root("NV-0001"), holding("NV-0002"))).toBe("differs");
});

it("does not take 'not read' for 'empty', before or after", () => {
  const unread = { drives: [onTarget, aDrive("SA-9", { sizeBytes: 9e11, contents: null })] };
  expect(line(unread, "untouched-SA-9")).toMatchObject({ verdict: "not seen", found: "" });
  const before = planExpectations(
    aBuild({
      drives: [aDrive("NV-0001", {}), aDrive("SA-9", { contents: null })],
      sheet: { "storage.leaveAlone": ["SA-9"] },
    }),
  );
  expect(compare({}, {}, before).find((l) => l.id === "untouched-SA-9")).toMatchObject({
    verdict: "not seen",
    found: 'ext4 "archive"; earlier contents unknown',
  });
});

it.each<[string, object, object, string, RegExp]>([
  ["a reading of the installed system", {}, {}, "as planned", /synchronised; collected after/],
  ["a reading from before it ran", {}, { takenAt: "2026-11-20T07:00:00Z" }, "differs", /old data/],
  ["a clock that is ahead", {}, { takenAt: "2026-11-20T10:05:00Z" }, "differs", /1 h ahead/],
  ["no word on a reference", { system: { ...system, clockFollows: null } }, {}, "not seen", /collected at/],
])("the time by %s", (_, changes, more, verdict, found) => {
  expect(line(changes, "clock", more)).toMatchObject({ verdict, found: expect.stringMatching(found) });
});

it("asks nothing that the plan does not decide", () => {
  const dynamic = planExpectations(
    aBuild({ sheet: { "network.school": "dynamic", "answers.keyboard": "", "boot.mode": "legacy" } }),
  ).map((e) => e.id);
  for (const id of ["address", "keyboard", "secure-boot"]) expect(dynamic).not.toContain(id);
});

it("reads the expectations of older runs", () => {
  const old = {
    id: "target",
    zone: "D",
    what: "System drive",
    planned: "x",
    match: { kind: "target", drive: "NV-0001" },
  };
  expect(expectationSchema.parse(old).match).toEqual({ kind: "target", drives: ["NV-0001"], marks: [] });
});

it("is as planned with a label that says where, and with where it was mounted in a run of an older database", () => {
  const labelled = { part: "sda1", sizeBytes: 9e9, kind: "ext4", label: "data at rest", mountedAt: ["/mnt"] };
  const drive = aDrive("SA-9", { contents: [labelled] });
  const asked = planExpectations(
    aBuild({ drives: [aDrive("NV-0001", {}), drive], sheet: { "storage.leaveAlone": ["SA-9"] } }),
  );
  const found = (wanted: typeof asked) =>
    compare({ drives: [aDrive("NV-0001", {}), drive] }, {}, wanted).find((l) => l.id === "untouched-SA-9");
  expect(found(asked)).toMatchObject({ verdict: "as planned" });
  const older = asked.map((e) =>
    e.match.kind === "untouched" ? { ...e, match: { ...e.match, holds: contentWords(drive) } } : e,
  );
  expect(contentWords(drive)).toContain(" at /mnt");
  expect(found(older)).toMatchObject({ verdict: "as planned" });
});
