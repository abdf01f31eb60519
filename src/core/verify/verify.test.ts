import { expect, it } from "vitest";
import { aBuild, aDrive, MAC } from "../../../tests/support/builds";
import { factsSchema } from "../machine";
import { compareWithPlan, planExpectations, tally } from ".";

const archive = { part: "sda1", sizeBytes: 9, kind: "ext4", label: "archive", mountedAt: ["/mnt"] };
const other = aDrive("SA-9", { sizeBytes: 9e11, contents: [archive] });
const plan = planExpectations(
  aBuild({ drives: [aDrive("NV-0001", {}), other], sheet: { "storage.leaveAlone": ["SA-9"] } }),
);

const installed = {
  chassis: { serial: "OST-1" },
  firmware: { mode: "uefi" as const },
  system: {
    osId: "cairn",
    osName: "Cairn Hypervisor 9.0",
    osVersion: "9.0",
    hostName: "wrk-hv1",
    gateway: "10.61.10.1",
    nameServers: ["10.61.10.2"],
    timeZone: "Europe/London",
    locale: "en_GB.utf8",
    keyboard: "gb",
    addresses: [{ interface: "br0", address: "10.61.10.20", prefixLength: 24, dynamic: false }],
  },
  drives: [
    aDrive("NV-0001", {
      contents: [{ part: "p1", sizeBytes: 1, kind: "vfat", label: "BOOT", mountedAt: [] }],
    }),
    { ...other, contents: [{ ...archive, mountedAt: [] }] },
  ],
  ports: [{ mac: MAC, seenAs: "eno1", kind: "ethernet" as const, link: "up" as const }],
};
const compare = (changes: object) => compareWithPlan(plan, factsSchema.parse({ ...installed, ...changes }));
const line = (changes: object, id: string) => compare(changes).find((l) => l.id === id);

it("finds a system that was built as planned", () => {
  expect(tally(compare({}))).toEqual({ "as planned": 13, differs: 0, "not seen": 0 });
});

it("says nothing of what was not looked at", () => {
  expect(tally(compareWithPlan(plan, factsSchema.parse({})))).toEqual({
    "as planned": 0,
    differs: 0,
    "not seen": 13,
  });
});

it.each([
  ["serial", { chassis: { serial: "OST-2" } }, "OST-2"],
  ["mode", { firmware: { mode: "legacy" } }, "legacy"],
  [
    "system",
    { system: { ...installed.system, osName: "Cairn Hypervisor 90", osVersion: "90" } },
    "Cairn Hypervisor 90",
  ],
  [
    "address",
    {
      system: {
        ...installed.system,
        addresses: [{ interface: "br0", address: "10.61.10.20", prefixLength: 16, dynamic: false }],
      },
    },
    "10.61.10.20/16",
  ],
  ["name-servers", { system: { ...installed.system, nameServers: ["10.61.10.3"] } }, "10.61.10.3"],
  ["host-name", { system: { ...installed.system, hostName: "localhost" } }, "localhost"],
  [
    "target",
    { drives: [aDrive("NV-0001", {}), { ...other, contents: [{ ...archive, mountedAt: ["/"] }] }] },
    "the system stands on SA-9",
  ],
  ["untouched-SA-9", { drives: [installed.drives[0], { ...other, contents: [] }] }, "nothing found"],
  ["port", { ports: [{ ...installed.ports[0], mac: "02:00:00:00:00:01" }] }, "02:00:00:00:00:01"],
])("%s that differs is told with what was found", (id, changes, found) => {
  expect(line(changes, id)).toMatchObject({ verdict: "differs", found });
});

it("asks nothing that the plan does not decide", () => {
  const dynamic = planExpectations(
    aBuild({ sheet: { "network.school": "dynamic", "answers.keyboard": "" } }),
  ).map((e) => e.id);
  expect(dynamic).not.toEqual(expect.arrayContaining(["address"]));
  expect(dynamic).not.toEqual(expect.arrayContaining(["keyboard"]));
});
