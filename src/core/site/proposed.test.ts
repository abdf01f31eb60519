import { readFileSync } from "node:fs";
import { expect, it } from "vitest";
import { emptyMachine, mergeReadings, noFacts, readTexts, type Facts } from "../machine";
import { proposals, proposedSite, siteSchema } from ".";

const bundle = readFileSync("demo/tho-b-bundle.txt", "utf8");
const read = mergeReadings(
  emptyMachine(),
  readTexts([
    { name: "bundle.txt", text: bundle },
    { name: "route.json", text: '[{"dst": "default", "gateway": "10.61.20.1", "dev": "eno1"}]' },
  ]).readings,
  "2026-11-24T13:20:00Z",
).document.facts;
const lent = (facts: Facts, dynamic: boolean): Facts => ({
  ...facts,
  ports: facts.ports.map((p) => ({ ...p, addresses: p.addresses.map((a) => ({ ...a, dynamic })) })),
});

it("makes the site of a first machine as it was found there, and a sound one", () => {
  const site = proposedSite("First site", read);
  expect(site).toMatchObject({
    name: "First site",
    timeZone: "Europe/London",
    keyboard: "us",
    segments: [{ prefix: "10.61.20.0/26", gateway: "10.61.20.1", nameServers: ["10.61.20.1"], dhcp: [] }],
  });
  expect(siteSchema.safeParse(site).success).toBe(true);
});

it("lends addresses where the machine's own was lent, and sets them where it was set", () => {
  expect(proposedSite("a", lent(read, true)).addressSchool).toBe("reserved");
  expect(proposedSite("a", lent(read, false)).addressSchool).toBe("fixed");
});

it("keeps nothing that would be wrong: no foreign gateway, no resolver of the machine's own, no made-up zone", () => {
  const system = {
    ...read.system,
    gateway: "10.9.9.1",
    nameServers: ["127.0.0.53"],
    timeZone: "Nowhere/Else",
  };
  const site = proposedSite("a", { ...read, system });
  expect(site.segments[0]).toMatchObject({ gateway: null, nameServers: [] });
  expect(site.timeZone).toBe("UTC");
});

it("says of each value whether it was read or is taken by default", () => {
  expect(proposals(read).every((p) => p.isRead)).toBe(true);
  expect(proposals(read).find((p) => p.what === "Drive")?.value).toMatch(/: the only one$/);
  const none = proposals(noFacts());
  expect(none.filter((p) => p.isRead)).toEqual([]);
  expect(none.find((p) => p.what === "Time zone")?.value).toBe("UTC (default)");
  expect(none.find((p) => p.what === "Drive")?.value).toBe("none collected");
});
