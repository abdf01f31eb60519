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
    const [drive] = built.document.facts.drives;
    const drives = [drive!, { ...drive!, id: "S9", serial: "S9" }];
    const { storage } = adoptMachine(chosen, machine({ drives }), aSite);
    expect(storage).toEqual({ ...before.storage, leaveAlone: drives.map((d) => d.id) });
  });

  it("takes the only drive of a machine as target, without leave to erase it, and leaves a stick in it alone", () => {
    const [drive] = built.document.facts.drives;
    const stick = { ...drive!, id: "U1", serial: "U1", media: "usb" };
    const { storage } = adopted({ drives: [drive, stick] });
    expect(storage).toMatchObject({ target: drive!.id, leaveAlone: ["U1"], erase: [] });
    expect(adopted({ drives: [stick] }).storage).toMatchObject({ target: null, leaveAlone: ["U1"] });
  });

  const at = (address: string, dynamic: boolean) => ({
    ...port("02:61:0a:00:00:01", "up"),
    addresses: [{ family: "ipv4", address, prefixLength: 24, scope: "global", dynamic }],
  });
  it("takes the address that the machine has in its segment; one that was lent only where it can be reserved", () => {
    const taken = (address: string, dynamic: boolean, site = aSite) =>
      adopted({ ports: [at(address, dynamic)] }, site).network;
    const [first] = aSite.segments;
    const own = first!.prefix.replace(/\.0\/.*$/, ".77");
    expect(taken(own, false)).toMatchObject({ school: "fixed", address: own });
    expect(taken(own, true)).toMatchObject({ school: "fixed", address: "" });
    const reserving = { ...aSite, addressSchool: "reserved" as const };
    expect(taken(own, true, reserving)).toMatchObject({ school: "reserved", address: own });
    expect(taken("10.99.0.7", false)).toMatchObject({ address: "" });
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
    const mini = { form: "Mini PC" };
    expect(adopted({ controller: undefined, chassis: mini }).image.way).toBe("stick");
    expect(adopted({ controller: undefined, chassis: {} }).image.way).toBe(emptySheet().image.way);
    expect(adopted({ controller: { present: true }, chassis: mini }).image.way).toBe(emptySheet().image.way);
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
