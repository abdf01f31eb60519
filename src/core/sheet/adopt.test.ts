import { describe, expect, it } from "vitest";
import { aBuild, aSite } from "../../../tests/support/builds";
import { emptySite } from "../site";
import { adoptMachine, applyEdits, diffSheets, emptySheet, invertEdits, type ChosenMachine } from ".";

const built = aBuild().machine!;
const machine = (facts: object = {}): ChosenMachine => ({
  ...{ id: "m1", name: "wrk-hv1" },
  document: { ...built.document, facts: { ...built.document.facts, ...facts } },
});
const adopted = (facts: object = {}, site = aSite) => adoptMachine(emptySheet(), machine(facts), site);
const port = (mac: string, link: string, kind = "ethernet") => ({
  ...built.document.facts.ports[0]!,
  mac,
  link,
  kind,
});

describe("choosing a machine", () => {
  it("leaves every drive alone and takes none as target, whatever was chosen before", () => {
    const before = emptySheet();
    const chosen = { ...before, storage: { ...before.storage, target: "S1", free: ["S2"], erase: [] } };
    const { storage } = adoptMachine(chosen, machine(), aSite);
    expect(storage).toEqual({
      ...before.storage,
      leaveAlone: built.document.facts.drives.map((d) => d.id),
    });
  });

  it.each<[string, object, string | null]>([
    ["the one with a link", { ports: [port("a", "down"), port("b", "up")] }, "b"],
    ["the first, where none has one", { ports: [port("a", "down"), port("b", "unknown")] }, "a"],
    ["a cable before a radio", { ports: [port("a", "up", "wireless"), port("b", "down")] }, "b"],
    ["none, where there is none", { ports: [] }, null],
  ])("takes a port: %s", (_, facts, mac) => expect(adopted(facts).network.port).toBe(mac));

  it("takes its boot mode where it is known, and a stick where it has no controller", () => {
    expect(adopted({ firmware: { mode: "legacy" } }).boot.mode).toBe("legacy");
    expect(adopted({ firmware: undefined }).boot.mode).toBe(emptySheet().boot.mode);
    expect(adopted({ controller: { present: false } }).image.way).toBe("stick");
    expect(adopted({ controller: { present: true } }).image.way).toBe(emptySheet().image.way);
  });

  it("takes the usual answers of its site, and its own name unless one was typed", () => {
    const { network, answers } = adopted();
    const management = aSite.segments.find((s) => s.purpose === "management")!;
    expect(network).toMatchObject({ segment: management.id, gateway: management.gateway ?? "" });
    expect(answers).toMatchObject({ hostName: "wrk-hv1", domain: aSite.domain, timeZone: aSite.timeZone });
    const typed = { ...emptySheet(), answers: { ...emptySheet().answers, hostName: "own-name" } };
    expect(adoptMachine(typed, machine(), aSite).answers.hostName).toBe("own-name");
    expect(adoptMachine(typed, machine(), null).answers).toEqual(typed.answers);
    expect(adopted({}, emptySite("Bare")).network).toMatchObject({ segment: null, gateway: "" });
  });

  it("can be taken back with all that it brought along, and changes nothing in place", () => {
    const before = aBuild().sheet;
    const copy = structuredClone(before);
    const edits = diffSheets(before, adoptMachine(before, machine({ ports: [] }), emptySite("Bare")));
    expect(before).toEqual(copy);
    expect(edits.length).toBeGreaterThan(3);
    const there = applyEdits(before, edits);
    const back = there.ok && applyEdits(there.value, invertEdits(edits));
    expect(back && back.ok && back.value).toEqual(before);
  });
});
