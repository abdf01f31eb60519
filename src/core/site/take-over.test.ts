import { describe, expect, it } from "vitest";
import { readNetworkText, type NetworkRow } from "../network";
import { offersFrom, siteSchema, takenOver, type Known } from ".";

const MAC = "02:61:0a:00:14:01";
const site = siteSchema.parse({
  ...{ schemaVersion: 2, name: "Works" },
  segments: [
    {
      ...{ id: "m", name: "Management", purpose: "management", prefix: "10.61.10.0/24" },
      dhcp: [{ from: "10.61.10.100", to: "10.61.10.179" }],
      reservations: [{ mac: "02:61:0a:00:00:09", address: "10.61.10.9", name: "strip" }],
    },
    { id: "s", name: "Storage", purpose: "storage", prefix: "10.61.11.0/24" },
  ],
  devices: [{ id: "sw1", name: "wrk-sw1", kind: "switch", address: "10.61.10.4", portCount: 8 }],
  cables: [{ id: "c1", a: { mac: MAC }, b: { device: "sw1", port: "1" } }],
});
let count = 0;
const known: Known = {
  takers: new Map([["10.61.10.21", "wrk-hv1 (B-0041)"]]),
  machine: {
    name: "wrk-hv1",
    ports: [
      { mac: MAC, seenAs: "eno1" },
      { mac: "02:61:0a:00:14:02", seenAs: "eno2" },
    ],
  },
  newId: (what) => `${what}-${(count += 1)}`,
};
const reservation = (mac: string, address: string, name = "x"): NetworkRow => ({
  kind: "reservation",
  line: 1,
  mac,
  address,
  name,
});
const range = (from: string, to: string): NetworkRow => ({ kind: "range", line: 1, from, to });
const host = (address: string, name: string): NetworkRow => ({ kind: "host", line: 1, address, name });
const seen = (address: string): NetworkRow => ({ kind: "seen", line: 1, address, mac: "02:00:00:00:00:77" });
const cable = (port: string, device: string, devicePort: string): NetworkRow => ({
  kind: "cable",
  line: 1,
  port,
  device,
  devicePort,
  address: "",
});

describe("what would be taken over", () => {
  it.each<[NetworkRow, string, RegExp]>([
    [reservation("02:61:0a:00:00:09", "10.61.10.9"), "known", /already reserved/],
    [reservation("02:61:0a:00:00:09", "10.61.10.8"), "differs", /the plan reserves 10\.61\.10\.9 for it/],
    [
      reservation("02:61:0a:00:00:0a", "10.61.10.9"),
      "differs",
      /reserves it for 02:61:0a:00:00:09 \(strip\)/,
    ],
    [reservation("02:61:0a:00:00:0a", "10.61.11.8"), "new", /add a reservation in Storage/],
    [reservation("02:61:0a:00:00:0a", "10.9.9.9"), "not here", /in none of the networks of the site/],
    [range("10.61.10.100", "10.61.10.179"), "known", /already planned/],
    [range("10.61.10.50", "10.61.10.60"), "differs", /10\.61\.10\.50 to 10\.61\.10\.60/],
    [range("10.61.11.50", "10.61.11.60"), "new", /add a DHCP range in Storage/],
    [range("10.61.11.50", "10.61.12.60"), "not here", /none of/],
    [host("10.61.10.21", "wrk-hv1.marrowby.example"), "known", /wrk-hv1 \(B-0041\) in the plan/],
    [host("10.61.10.21", "old"), "differs", /in the plan it is wrk-hv1 \(B-0041\)/],
    [host("10.61.10.44", "door"), "new", /10\.61\.10\.44 is door/],
    [seen("10.61.10.21"), "known", /wrk-hv1 \(B-0041\) in the plan/],
    [seen("10.61.10.77"), "new", /not planned/],
    [seen("192.168.1.1"), "not here", /none of/],
    [cable("eno1", "wrk-sw1", "1"), "known", /as planned/],
    [cable("eno1", "wrk-sw1", "2"), "differs", /in the plan the cable is connected elsewhere/],
    [cable("eno2", "wrk-sw9", "2"), "new", /add this cable and the device/],
    [cable("eth0", "wrk-sw1", "2"), "not here", /wrk-hv1 has no port eth0/],
  ])("%j is %s", (row, state, says) => {
    const [offer] = offersFrom(site, [row], known);
    expect([offer!.state, offer!.says]).toEqual([state, expect.stringMatching(says)]);
    // What is taken over is known afterwards, whatever it was before; what is not of this site changes nothing.
    const after = takenOver(site, [row], known);
    expect(siteSchema.parse(after)).toEqual(after);
    if (state === "not here" && row.kind !== "seen")
      expect(offersFrom(after, [row], known)[0]!.state).toBe("not here");
    else if (state === "new" || (state === "differs" && row.kind !== "host"))
      expect(offersFrom(after, [row], known)[0]!.state).toBe("known");
  });

  it("a cable that is read while its machine is not told asks for it", () =>
    expect(offersFrom(site, [cable("eno1", "a", "1")], { ...known, machine: null })[0]!.says).toMatch(
      /choose the machine that it was collected on/,
    ));

  it("a file as a whole is known once it was taken over", () => {
    const read = readNetworkText(
      "dhcp-host=02:61:0a:00:00:31,10.61.11.31,a\ndhcp-host=02:61:0a:00:00:32,10.61.11.32\ndhcp-range=10.61.11.100,10.61.11.120,1h",
    );
    const rows = read.ok ? read.value.rows : [];
    expect(offersFrom(site, rows, known).map((o) => o.state)).toEqual(["new", "new", "new"]);
    const after = takenOver(site, rows, known);
    expect(offersFrom(after, rows, known).map((o) => o.state)).toEqual(["known", "known", "known"]);
    expect(after.segments[0]).toEqual(site.segments[0]);
  });
});
