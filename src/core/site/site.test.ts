import { expect, it } from "vitest";
import { CIRCUIT, DEVICE, parseAddresses, RANGE, RESERVATION, siteSchema, type CellRow } from ".";

it("refuses a name among name servers, and loses nothing in silence", () => {
  expect(parseAddresses("10.61.10.2, ns1")).toMatchObject({
    problems: [{ message: '"ns1": is not an address' }],
  });
  expect(parseAddresses(" 10.61.10.2 10.61.10.3,")).toMatchObject({
    ok: true,
    value: ["10.61.10.2", "10.61.10.3"],
  });
});

/** What the cells of a row come to: the row, or what is wrong, cell by cell. */
function row<Row>({ cells, check }: CellRow<Row>, ...texts: string[]) {
  const read = cells.map((c, i) => c.read(texts[i] ?? ""));
  const wrong = read.flatMap((r) => ("problem" in r ? [r.problem] : []));
  if (wrong.length > 0) return wrong;
  const whole = Object.assign({}, ...read.map((r) => ("value" in r ? r.value : {}))) as Row;
  return check?.(whole) ?? whole;
}

it("reads the cells of a site's lists, each by its own rule", () => {
  expect(row(RESERVATION, "02-61-0A-00-00-09", "10.61.10.9", "rack A power strip")).toEqual({
    mac: "02:61:0a:00:00:09",
    address: "10.61.10.9",
    name: "rack A power strip",
  });
  expect(row(RESERVATION, "02:61", "strip")).toEqual([
    "a MAC has six pairs, for example 02:61:0a:00:00:09",
    '"strip" is not an address',
  ]);
  expect(row(DEVICE, "wrk-sw1", "Switch", "fd61:7a1e::4", "rack A", "changed", "24", "")).toEqual({
    ...{ name: "wrk-sw1", kind: "switch", address: "fd61:7a1e::4", place: "rack A", logIn: "changed" },
    ...{ portCount: 24, mtu: null },
  });
  expect(row(DEVICE, "", "gate", "10.61.10", "", "yes", "9999", "12")).toEqual([
    "enter a name",
    expect.stringMatching(/^enter one of: switch, router/),
    '"10.61.10" is not an address',
    expect.stringMatching(/^enter one of: not asked, default/),
    "a whole number from 0 to 512, or nothing",
    "a whole number from 576 to 9216, or nothing",
  ]);
  expect(row(CIRCUIT, "rack A", "1500,5 W")).toEqual({ name: "rack A", limitWatts: 1500.5 });
  expect(row(CIRCUIT, "A1", "0")).toEqual(["a number of watts above 0, for example 2300"]);
  expect(row(CIRCUIT, "A1", "2300 VA")).toEqual(["a number of watts above 0, for example 2300"]);
  expect(row(RANGE, "10.61.10.9", "10.61.10.100")).toEqual({ from: "10.61.10.9", to: "10.61.10.100" });
  expect(row(RANGE, "10.61.10.100", "10.61.10.9")).toBe("the last address is below the first");
  expect(row(RANGE, "10.61.10.100", "fd61:7a1e::9")).toMatch(/^one is an IPv4 address/);
});

it("reads what its cells show", () => {
  const reservation = { mac: "02:61:0a:00:00:09", address: "10.61.10.9", name: "strip" };
  expect(row(RESERVATION, ...RESERVATION.cells.map((c) => c.show(reservation)))).toEqual(reservation);
  const circuit = { name: "A1", limitWatts: 2300.5 };
  expect(row(CIRCUIT, ...CIRCUIT.cells.map((c) => c.show(circuit)))).toEqual(circuit);
});

it("keeps a link whose round trip nobody typed as not typed", () => {
  const link = siteSchema.parse({ schemaVersion: 2, name: "Works", link: { bitsPerSecond: 12e6 } }).link;
  expect(link).toEqual({ bitsPerSecond: 12e6, roundTripSeconds: null });
});
