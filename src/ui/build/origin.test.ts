import { expect, it } from "vitest";
import { aBuild } from "../../../tests/support/builds";
import { originOf } from "./origin";
import { originWords } from "./origins";

const plan = aBuild();
const { sheet, site } = plan;
const machine = plan.machine!;

it("says where a value stands already that nobody had to type, and nothing of one that stands on the sheet alone", () => {
  const named = { ...sheet, answers: { ...sheet.answers, hostName: machine.name, domain: site!.domain } };
  expect(originOf("answers.hostName", named, { machine, site })).toBe("from the machine name");
  expect(originOf("answers.domain", named, { machine, site })).toBe("site default");
  const other = { ...named, answers: { ...named.answers, hostName: "own", domain: "" } };
  expect(originOf("answers.hostName", other, { machine, site })).toBeUndefined();
  expect(originOf("answers.domain", other, { machine, site: { ...site!, domain: "" } })).toBeUndefined();
});

it("finds the machine's own address at the planned port only", () => {
  const [port] = machine.document.facts.ports;
  const address = {
    family: "ipv4" as const,
    address: "10.61.10.77",
    prefixLength: 24,
    scope: "global",
    dynamic: false,
  };
  const ports = [{ ...port!, addresses: [address] }];
  const read = { ...machine, document: { ...machine.document, facts: { ...machine.document.facts, ports } } };
  const at = (mac: string) => ({
    ...sheet,
    network: { ...sheet.network, port: mac, address: "10.61.10.77" },
  });
  const words = (mac: string) => originOf("network.address", at(mac), { machine: read, site });
  expect(words(port!.mac)).toBe("current setting of the machine, from its hardware data");
  expect(words("02:00:00:00:00:99")).toBeUndefined();
});

it("of any field says who entered it and when, what came with the machine, and nothing of what nobody touched", () => {
  const build = {
    id: "b",
    number: "B-1",
    version: 4,
    revision: null,
    revisionVersion: null,
    updatedAt: "",
    sheet,
  };
  const context = { machine, site, image: plan.image, profile: plan.profile, edition: null };
  const row = (by: string, ...paths: string[]) => ({
    ...{ at: "2026-11-20T08:00:00.000Z", by },
    edits: paths.map((path) => ({ path })),
  });
  const words = originWords({ build, context }, [
    row("M. Arkle", "answers.accounts", "network.interfaces.0.name"),
    row("J. Pell", "machine.id", "answers.accounts", "network.port"),
    row("J. Pell", "storage"),
  ]);
  expect(words("answers.domain")).toBe("site default");
  // The newest change counts, of the field itself or of what it is a part of.
  expect(words("answers.accounts")).toBe("M. Arkle, 20 Nov 2026");
  expect(words("network.interfaces")).toBe("M. Arkle, 20 Nov 2026");
  expect(words("storage.target")).toBe("J. Pell, 20 Nov 2026");
  expect(words("network.port")).toBe("with the machine");
  expect(words("boot.mode")).toBe("");
});

it("names the file that a value was taken over from before anything else, and typing when it was typed since", () => {
  const named = { ...sheet, answers: { ...sheet.answers, domain: site!.domain } };
  const view = { build: { sheet: named }, context: { machine, site } } as Parameters<typeof originWords>[0];
  const at = "2026-11-20T08:00:00.000Z";
  const taken = { at, by: "J. Pell", edits: [{ path: "answers.domain", from: "kickstart file, line 12" }] };
  const typed = { at, by: "A. Arkle", edits: [{ path: "answers.domain" }] };
  expect(originWords(view, [taken])("answers.domain")).toBe(
    "kickstart file, line 12, imported by J. Pell, 20 Nov 2026",
  );
  expect(originWords(view, [typed, taken])("answers.domain")).toBe("site default");
});
