import { describe, expect, it } from "vitest";
import { deviceSchema, switchPortSchema, type Device } from "../network";
import {
  cableCells,
  cableRows,
  cablesFrom,
  devicesFrom,
  endFromWords,
  portsFrom,
  siteDocument,
  type Directory,
} from ".";
import { readDocument } from "../document";

const MAC = "02:61:0a:00:14:01";
const directory: Directory = {
  devices: [deviceSchema.parse({ id: "d1", name: "wrk-sw1", portCount: 4 })],
  machines: [{ name: "wrk-hv1", ports: [{ mac: MAC, seenAs: "eno1" }] }],
};
const rowOf = ({ id: _, ports: __, ...row }: Device) => row;
const row = { a: "wrk-hv1", aPort: "eno1", b: "wrk-sw1", bPort: "3", lengthMetres: 2, label: "C-1" };

describe("cables as they are typed", () => {
  it("become ends by identity, and are shown by name again", () => {
    const made = cablesFrom(directory, [row], [], () => "c1");
    expect(made).toEqual([
      { id: "c1", a: { mac: MAC }, b: { device: "d1", port: "3" }, lengthMetres: 2, label: "C-1" },
    ]);
    expect(cableRows(directory, made)).toEqual([row]);
    expect(cablesFrom(directory, [{ ...row, label: "" }], made, () => "c2")[0]?.id).toBe("c1");
  });
  it.each([
    [{ a: "nobody" }, /nothing at this site has the name "nobody"/],
    [{ aPort: "eno9" }, /has no port eno9: it has eno1/],
    [{ bPort: "5" }, /wrk-sw1 has no port 5: it has 4/],
    [{ a: "wrk-sw1", aPort: "3" }, /both ends are the same port/],
  ])("%j is told: %s", (more, problem) =>
    expect(cableCells(directory).check?.({ ...row, ...more })).toMatch(problem),
  );
  it("a MAC stands for a machine that is not known yet", () =>
    expect(endFromWords(directory, "anything 02-61-0A-00-14-09")).toEqual({
      value: { mac: "02:61:0a:00:14:09" },
    }));
});

describe("things as they are typed", () => {
  const [first, second] = [
    deviceSchema.parse({ id: "1", name: "a", ports: [{ name: "1", native: 10 }] }),
    deviceSchema.parse({ id: "2", name: "b" }),
  ];
  const typed = (...names: string[]) =>
    devicesFrom(
      names.map((name) => ({ ...rowOf(first), name })),
      [first, second],
      () => "new",
    ).map((d) => `${d.id} ${d.name} ${d.ports.length}`);
  it("one that is renamed keeps its ports", () => expect(typed("a2", "b")).toEqual(["1 a2 1", "2 b 0"]));
  it("one that is taken out leaves the others theirs", () => expect(typed("b")).toEqual(["2 b 0"]));
  it("they may change places, and a new one is new", () =>
    expect(typed("b", "a", "c")).toEqual(["2 b 0", "1 a 1", "new c 0"]));
  it("a row may be a stretch of ports, and the later of two stands", () => {
    const port = (name: string, native: number) => switchPortSchema.parse({ name, native });
    expect(
      portsFrom([port("1-3", 10), port("sfp1-2", 5), port("2", 20)]).map((p) => `${p.name} ${p.native}`),
    ).toEqual([...["1 10", "2 20", "3 10", "sfp1 5", "sfp2 5"]]);
    expect(portsFrom([port("3-1", 10)]).map((p) => p.name)).toEqual(["3-1"]);
  });
});

it("a site of the first version keeps every address that it had, and loses no text", () => {
  const old = {
    schemaVersion: 1,
    name: "Works",
    occupied: [
      { address: "10.61.10.4", what: "switch wrk-sw1" },
      { address: "beside the door", what: "printer" },
      { address: "", what: "" },
    ],
  };
  const read = readDocument(siteDocument, old);
  expect(read.ok && read.value.devices.map((d) => [d.name, d.address, d.logIn])).toEqual([
    ["switch wrk-sw1", "10.61.10.4", "not asked"],
    ["printer beside the door", "", "not asked"],
    ["unnamed", "", "not asked"],
  ]);
});
