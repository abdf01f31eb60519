import { readFileSync } from "node:fs";
import { beforeAll, expect, it } from "vitest";
import { importAll } from "@/server/exports";
import { machineView } from "@/server/machines";
import { command } from "@/server/runs";
import { ownDatabase } from "../support/database";
import { desk } from "../support/desk";

ownDatabase();
beforeAll(async () => {
  await importAll(await desk(), readFileSync("demo/marrowby-water.json", "utf8"), { rebase: false });
});

const RUN = "r-wrk-hv1";
const keysOf = async () => (await machineView(await desk(), "m-wrk-hv1"))!.machine.document.typed.keys;
const read = async (key: string, what: string, value: string) =>
  command(await desk(), RUN, key, { kind: "reading", step: null, what, value });

it("what a run reads of the firmware's keys stays with the machine, and other readings change nothing there", async () => {
  const before = await keysOf();
  expect(await read("reading-heat-1", "inlet temperature", "24 C")).toMatchObject({ ok: true });
  expect(await keysOf()).toEqual(before);
  expect(await read("reading-key-1", "boot-menu key", "F10, 23 s")).toMatchObject({ ok: true });
  expect(await keysOf()).toEqual({ ...before, bootMenu: "F10", seconds: 23 });
  expect(await read("reading-key-2", "set-up key", "Del")).toMatchObject({ ok: true });
  expect(await keysOf()).toEqual({ ...before, bootMenu: "F10", seconds: 23, setup: "Del" });
  // The same reading sent again by its key is not written twice.
  const { machine } = (await machineView(await desk(), "m-wrk-hv1"))!;
  await read("reading-key-2", "set-up key", "F2");
  expect((await machineView(await desk(), "m-wrk-hv1"))!.machine.version).toBe(machine.version);
});
