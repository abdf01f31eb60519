import { readFileSync } from "node:fs";
import { beforeAll, describe, expect, it } from "vitest";
import type { z } from "zod";
import {
  IMAGE,
  MACHINE,
  saveWritten,
  SITE,
  takeBackWritten,
  writtenView,
  type WrittenKind,
} from "@/server/written";
import { importAll } from "@/server/exports";
import { saveComputed } from "@/server/images";
import { ownDatabase } from "../support/database";
import { desk } from "../support/desk";
import { write } from "../support/written";

const AT = "2026-11-24T09:00:00.000Z";

ownDatabase();
beforeAll(async () => {
  await importAll(await desk("the archive"), readFileSync("demo/marrowby-water.json", "utf8"), {
    rebase: false,
  });
});

const firm = { part: "system firmware", installed: "1", available: "2", decision: "undecided" };
const dated = { id: "t1", what: "restore drill", due: "2027-01-01", doneOn: null };
const KINDS: [string, WrittenKind<never, z.ZodType>, string, Record<string, unknown>][] = [
  ["site", SITE as never, "s-works", { room: "cellar", "link.roundTripSeconds": 0.03 }],
  ["image", IMAGE as never, "i-cairn-9", { notes: "on the second shelf", bootModes: ["uefi"] }],
  [
    "machine",
    MACHINE as never,
    "m-wrk-hv1",
    { "typed.place": "row 4", "typed.keys.setup": "F1", notes: "n", "controller.address": "10.61.10.77" },
  ],
];

describe.each(KINDS)("a form of a %s", (kind, written, id, values) => {
  const standing = async () => (await writtenView(await desk(), written, id))!;

  it("saves what differs and nothing beside; taking it back is the identity, and again makes it again", async () => {
    const before = await standing();
    const version = await write(await desk(), written, id, before.version, values);
    expect(version).toEqual({ ok: true, value: before.version + 1 });
    const after = await standing();
    expect(after.document).not.toEqual(before.document);
    const back = await takeBackWritten(await desk(), written, id, after.version);
    expect(back).toMatchObject({ ok: true, view: { document: before.document } });
    const again = await takeBackWritten(await desk(), written, id, after.version + 1);
    expect(again).toMatchObject({ ok: true, view: { document: after.document } });
  });

  it("hears of another hand's version with what stands there, who and when, and changes nothing", async () => {
    const { version } = await standing();
    await write(await desk("M. Arkle", AT), written, id, version, { notes: "by another" });
    const late = await saveWritten(await desk(), written, id, version, [
      { path: "notes", before: "", after: "mine" },
    ]);
    expect(late).toMatchObject({
      ok: false,
      stale: { by: "M. Arkle", at: AT, view: { version: version + 1, document: { notes: "by another" } } },
    });
  });

  it("takes nothing back that was changed again since then, and names it", async () => {
    const first = await standing();
    await write(await desk(), written, id, first.version, { notes: "first" });
    await write(await desk(), written, id, first.version + 1, { notes: "second" });
    const answer = await takeBackWritten(await desk(), written, id, first.version + 1);
    expect(!answer.ok && answer.problems[0]?.message).toBe(
      "Changed again since then, so nothing was undone: notes.",
    );
    expect((await takeBackWritten(await desk(), written, id, 9999)).ok).toBe(false);
  });

  it("has no door to what is not written in it, nor to one that is gone", async () => {
    const { version, document } = await standing();
    for (const path of ["computed", "facts", "inside.found", "__proto__", "constructor.name", "nothing"]) {
      const answer = await write(await desk(), written, id, version, { [path]: null });
      expect(!answer.ok && answer.problems[0]?.message).toBe(`the ${kind} has no field ${path}`);
    }
    const answer = await write(await desk(), written, "nowhere", 1, values);
    expect(!answer.ok && answer.problems[0]?.message).toBe(`This ${kind} no longer exists.`);
    expect(await standing()).toMatchObject({ version, document });
  });
});

it("tells when the document was saved, and not when somebody looked", async () => {
  const before = (await writtenView(await desk("J. Pell", AT), SITE, "s-thornhope"))!;
  const at = "2026-11-24T10:00:00.000Z";
  await write(await desk("J. Pell", at), SITE, "s-thornhope", before.version, { room: "loft" });
  const later = await writtenView(await desk("J. Pell", "2026-12-01T10:00:00.000Z"), SITE, "s-thornhope");
  expect(later?.updatedAt).toBe(at);
});

it("takes back by a form what was written in it, and nothing that was measured", async () => {
  const { version } = (await writtenView(await desk(), IMAGE, "i-hopper-3"))!;
  await saveComputed(await desk(), "i-hopper-3", { algorithm: "sha256", value: "b".repeat(64) });
  const answer = await takeBackWritten(await desk(), IMAGE, "i-hopper-3", version + 1);
  expect(!answer.ok && answer.problems[0]?.message).toContain("This change was not made in this form");
});

describe("what is typed of a controller", () => {
  const machine = async () => (await MACHINE.one((await desk()).db, "m-wrk-hv2"))!;
  const { facts, sources } = { facts: "controller", sources: "controller.address" } as const;

  it("is a fact with the source of its hand; taken back, the fact has the source that it had", async () => {
    const first = await machine();
    expect(first.document.sources[sources]?.from).not.toBe("A. Newhand");
    const typed = { "controller.address": "10.61.10.78", "controller.mediaBytesPerSecond": 2.4e6 };
    await write(await desk("A. Newhand", AT), MACHINE, "m-wrk-hv2", first.version, typed);
    const next = await machine();
    expect(next.document.facts[facts]).toMatchObject({ address: "10.61.10.78", mediaBytesPerSecond: 2.4e6 });
    expect(next.document.sources[sources]).toEqual({ tool: "typed", from: "A. Newhand", at: AT });
    expect((await takeBackWritten(await desk(), MACHINE, "m-wrk-hv2", next.version)).ok).toBe(true);
    const back = await machine();
    expect(back.document.sources).toEqual(first.document.sources);
    expect(back.document.facts[facts]).toMatchObject({ ...first.document.facts[facts] });
  });

  it("can be said not to be known again, and is then no fact", async () => {
    const id = "m-tho-b";
    const one = async () => (await MACHINE.one((await desk()).db, id))!;
    const { version, document } = await one();
    const says = { "controller.present": !document.facts.controller?.present };
    await write(await desk("J. Pell", AT), MACHINE, id, version, says);
    expect((await one()).document.sources["controller.present"]?.from).toBe("J. Pell");
    await write(await desk(), MACHINE, id, version + 1, { "controller.present": null });
    const none = (await one()).document;
    expect(none.facts.controller?.present).toBeUndefined();
    expect(none.sources["controller.present"]).toBeUndefined();
  });
});

describe("what a person signs in a form of a machine", () => {
  const standing = async () => (await writtenView(await desk(), MACHINE, "m-tho-b"))!;

  it("is signed by the hand that wrote it, whatever name was sent, and stays signed by it", async () => {
    const first = await standing();
    const sent = { by: "somebody else", at: "2001-01-01T00:00:00.000Z" };
    await write(await desk("J. Pell", AT), MACHINE, "m-tho-b", first.version, {
      "typed.firmware": [{ ...firm, ...sent }],
      "typed.dates": [{ ...dated, by: sent.by }],
    });
    const { typed } = (await standing()).document;
    expect(typed.firmware).toMatchObject([{ by: "J. Pell", at: AT }]);
    expect(typed.dates).toMatchObject([{ by: "J. Pell" }]);
    const later = "2026-11-25T09:00:00.000Z";
    await write(await desk("M. Arkle", later), MACHINE, "m-tho-b", first.version + 1, {
      "typed.firmware": [{ ...typed.firmware[0], reason: "quiet weeks first" }],
      "typed.dates": [{ ...typed.dates[0], doneOn: "2026-11-25", by: "M. Arkle" }],
      "typed.place": "row 9",
    });
    const next = (await standing()).document.typed;
    expect(next.firmware).toMatchObject([{ by: "M. Arkle", at: later, reason: "quiet weeks first" }]);
    expect(next.dates).toMatchObject([{ by: "J. Pell", doneOn: "2026-11-25" }]);
  });

  it("cannot be taken back where the history knows only how long it was", async () => {
    const { version } = await standing();
    await write(await desk(), MACHINE, "m-tho-b", version, { notes: "x".repeat(9000) });
    const answer = await takeBackWritten(await desk(), MACHINE, "m-tho-b", version + 1);
    expect(!answer.ok && answer.problems[0]?.message).toContain("too long for the history");
  });
});
