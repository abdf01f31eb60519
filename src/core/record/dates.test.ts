import { expect, it } from "vitest";
import { dueDates } from ".";

const TODAY = "2026-11-24";
const build = {
  id: "b1",
  name: "Install Cairn",
  hostName: "wrk-hv1",
  imageId: "i1",
  licensed: false,
  evaluationEnds: null,
  fixedBy: null,
  handedOver: false,
  today: TODAY,
};
const many = Array.from({ length: 20 }, (_, i) => ({ due: `2026-10-${10 + i}`, what: `past ${i}` }));
const words = (list: { what: string }[]) => list.map((d) => d.what);

it("never lets what is over push out what is coming", () => {
  const machines = [
    { id: "m1", name: "wrk-st1", today: TODAY, dates: [...many, { due: "2026-12-01", what: "Scrub" }] },
  ];
  const { over, coming } = dueDates({ machines, builds: [], images: [] }, TODAY);
  expect(over).toHaveLength(20);
  expect(words(coming)).toEqual(["Scrub: wrk-st1"]);
});

it("says how many more are coming than it shows", () => {
  const dates = many.map((d) => ({ ...d, due: d.due.replace("-10-", "-12-") }));
  expect(
    dueDates({ machines: [{ id: "m", name: "m", today: TODAY, dates }], builds: [], images: [] }, TODAY).more,
  ).toBe(8);
});

it.each<[string, object, string[]]>([
  ["an evaluation that ended", { evaluationEnds: "2026-11-01" }, ["Evaluation ends: Install Cairn"]],
  ["one that was licensed since", { evaluationEnds: "2026-11-01", licensed: true }, []],
  ["an address that was to be fixed", { fixedBy: "2026-11-20" }, ["Fix the address: wrk-hv1"]],
])("keeps what is over until it is done: %s", (_, more, expected) => {
  expect(words(dueDates({ machines: [], builds: [{ ...build, ...more }], images: [] }, TODAY).over)).toEqual(
    expected,
  );
});

it("drops the end of support of an image that nothing planned uses any more", () => {
  const images = [{ id: "i1", name: "Cairn 6", supportEnds: "2026-01-01" }];
  const over = (handedOver: boolean) =>
    words(dueDates({ machines: [], builds: [{ ...build, handedOver }], images }, TODAY).over);
  expect([over(false), over(true)]).toEqual([["Support ends: Cairn 6"], []]);
  const ahead = [{ ...images[0]!, supportEnds: "2027-01-01" }];
  expect(words(dueDates({ machines: [], builds: [], images: ahead }, TODAY).coming)).toEqual([
    "Support ends: Cairn 6",
  ]);
});

it("goes by the day where the machine stands: what is due today there is not over because it is tomorrow elsewhere", () => {
  const dates = [{ due: TODAY, what: "Scrub" }];
  const at = (today: string) =>
    dueDates({ machines: [{ id: "m", name: "m", today, dates }], builds: [], images: [] }, TODAY);
  expect([at(TODAY).over.length, at(TODAY).coming.length]).toEqual([0, 1]);
  expect([at("2026-11-25").over.length, at("2026-11-25").coming.length]).toEqual([1, 0]);
});
