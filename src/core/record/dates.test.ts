import { describe, expect, it } from "vitest";
import { applyEdits, emptySheet, sheetClaims } from "../sheet";
import { machineClaims } from "../claims";
import { emptyMachine, typedSchema } from "../machine";
import { calledFor, dueDates } from ".";

const TODAY = "2026-11-24";
const many = Array.from({ length: 20 }, (_, i) => ({ due: `2026-10-${10 + i}`, what: `past ${i}` }));
const words = (list: { what: string }[]) => list.map((d) => d.what);
const nothing = { subject: null, hostName: null, number: null, machine: null };

/** What a machine with some dates calls for, by way of its claims. */
const machineDates = (dates: { due: string; what: string; doneOn?: string }[], today = TODAY) =>
  machineClaims(
    {
      ...emptyMachine(),
      typed: typedSchema.parse({ dates: dates.map((d, i) => ({ id: `d${i}`, by: "J. Pell", ...d })) }),
    },
    "wrk-st1",
  )
    .filter((c) => c.kind === "date")
    .map(({ key }) => ({
      ...calledFor({ ...nothing, key, owner: "machine", ownerId: "m1", machine: "wrk-st1" }),
      today,
    }));

/** What a sheet with some choices calls for, by way of its claims. */
function sheetDates(choices: Record<string, unknown>) {
  const edits = Object.entries(choices).map(([path, after]) => ({ path, before: null, after }));
  const sheet = applyEdits(emptySheet(), edits);
  if (!sheet.ok) throw new Error(sheet.problems[0]?.message);
  const named = { number: "B-0001", subject: "Install Cairn", hostName: "wrk-hv1", machine: null };
  return sheetClaims(sheet.value, "B-0001")
    .filter((c) => c.kind === "date")
    .map(({ key }) => ({ ...calledFor({ ...named, key, owner: "build", ownerId: "b1" }), today: TODAY }));
}

it("never lets what is over push out what is coming", () => {
  const called = machineDates([...many, { due: "2026-12-01", what: "Scrub" }]);
  const { over, coming } = dueDates(called, [], TODAY);
  expect(over).toHaveLength(20);
  expect(coming).toEqual([{ date: "2026-12-01", what: "Scrub: wrk-st1", href: "/machines/m1" }]);
});

it("says how many more are coming than it shows, and than were read", () => {
  const called = machineDates(many.map((d) => ({ ...d, due: d.due.replace("-10-", "-12-") })));
  expect([dueDates(called, [], TODAY).more, dueDates(called, [], TODAY, 30).more]).toEqual([8, 38]);
});

describe("keeps what is over until it is done", () => {
  const ended = { "handOver.evaluationEnds": "2026-11-01" };
  const dynamic = { "network.school": "dynamic", "network.fixedBy": "2026-11-20" };
  const door = (until: string, from = ["outside"]) => ({
    "network.services": [{ name: "SSH", port: 22, protocol: "tcp", from, until }],
  });
  it.each<[string, Record<string, unknown>, string[]]>([
    ["an evaluation that ended", ended, ["Evaluation ends: Install Cairn"]],
    ["one that was licensed since", { ...ended, "handOver.licence": "licensed" }, []],
    ["an address that was to be fixed", dynamic, ["Address becomes static: wrk-hv1"]],
    ["a door that was to be closed", door("2026-11-18"), ["Close SSH, 22/tcp to the outside: Install Cairn"]],
    ["one that is not open to the outside any more", door("2026-11-18", ["mgmt"]), []],
    ["one that was fixed since", { ...dynamic, "network.school": "fixed" }, []],
  ])("%s", (_, choices, expected) => {
    const { over } = dueDates(sheetDates(choices), [], TODAY);
    expect(words(over)).toEqual(expected);
    for (const { href } of over) expect(href).toBe("/builds/b1");
  });

  it("a date of a machine that is marked done", () => {
    const done = { due: "2026-11-01", what: "Scrub", doneOn: "2026-11-02" };
    expect(machineDates([done])).toEqual([]);
  });
});

it("drops the end of support of an image that nothing planned uses any more", () => {
  const image = { id: "i1", name: "Cairn 6", supportEnds: "2026-01-01", wanted: true };
  const over = (wanted: boolean) => words(dueDates([], [{ ...image, wanted }], TODAY).over);
  expect([over(true), over(false)]).toEqual([["Support ends: Cairn 6"], []]);
  const ahead = [{ ...image, supportEnds: "2027-01-01", wanted: false }];
  expect(words(dueDates([], ahead, TODAY).coming)).toEqual(["Support ends: Cairn 6"]);
});

it("goes by the day where the machine stands: what is due today there is not over because it is tomorrow elsewhere", () => {
  const at = (today: string) => dueDates(machineDates([{ due: TODAY, what: "Scrub" }], today), [], TODAY);
  expect([at(TODAY).over.length, at(TODAY).coming.length]).toEqual([0, 1]);
  expect([at("2026-11-25").over.length, at("2026-11-25").coming.length]).toEqual([1, 0]);
});
