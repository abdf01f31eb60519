import { execFileSync } from "node:child_process";
import { readFileSync, readdirSync } from "node:fs";
import { join } from "node:path";
import { expect, it } from "vitest";
import { siteRows } from "@/db";
import { armMachine } from "@/server/netboot/arm";
import { armingOffer } from "@/server/netboot/offer";
import { armingPreview } from "@/server/netboot/preview";
import { passwordsView } from "@/server/passwords";
import { answersShown } from "@/server/scripts";
import { forgetSecret, sealParameter, sealSecret, secretsView } from "@/server/seals";
import { MACHINE, SITE } from "@/server/written";
import { machineRows } from "@/db";
import { ARMED, ask } from "../support/boot-image";
import { edit, makeReady } from "../support/armed";
import { ownBootService } from "../support/boot-service";
import { ownDatabase } from "../support/database";
import { desk } from "../support/desk";
import { write } from "../support/written";

// What a site, a sheet and a machine give by a name reaches the machine, and a secret reaches nothing else.

const { folder } = ownDatabase();
const service = ownBootService();
const SECRET = "Zr7 kq'0bL";
const problems = async (): Promise<string> => {
  const offer = await armingOffer(await desk(), ARMED.build);
  return offer.ok ? "" : offer.problems.map((p) => p.message).join(" ");
};
const get = async (path: string) => ask(service.base, path);

it("tells whose password the installer will stop and ask for, since none is sealed", async () => {
  await makeReady();
  const offer = await armingOffer(await desk(), ARMED.build);
  expect(offer.ok && offer.value.asks).toEqual(["jpell"]);
  const crypt = (salt: string) =>
    execFileSync("openssl", ["passwd", "-6", "-salt", salt, "Plum-7-tango-Oak"], { encoding: "utf8" }).trim();
  const { salt } = (await secretsView(await desk(), ARMED.build))!;
  const given = { opens: "jpell", hash: crypt("oneOfItsOwn"), toMark: crypt(salt) };
  expect(await sealSecret(await desk(), ARMED.build, given)).toMatchObject({ ok: true });
  const sealed = await armingOffer(await desk(), ARMED.build);
  expect(sealed.ok && sealed.value.asks).toEqual([]);
  await forgetSecret(await desk(), ARMED.build, "jpell");
});

it("refuses to arm while a value is given by nobody, or a secret is not sealed", async () => {
  const at = await desk();
  const site = (await siteRows.ifSound(at.db, ARMED.site))!;
  await write(at, SITE, ARMED.site, site.version, {
    parameters: [
      { name: "console", value: "ttyS0" },
      { name: "enrol", value: "", isSecret: true },
    ],
  });
  await edit({ "answers.firstStart": ["enrol --key {parameter.enrol} --at {parameter.place}"] });
  await makeReady();
  expect(await problems()).toMatch(/The sheet has blockers: F/);
  await edit({ "answers.parameters": [{ name: "place", value: "rack B", isSecret: false }] });
  await makeReady();
  expect(await problems()).toMatch(/secret parameter "enrol" is not stored/);
  expect((await passwordsView(at, ARMED.build))?.parameters).toEqual(["enrol"]);
});

it("shows what is in force with its origin, and the secret nowhere", async () => {
  const at = await desk();
  expect(await sealParameter(at, ARMED.build, "enrol", "")).toMatchObject({ ok: false });
  const sealed = await sealParameter(at, ARMED.build, "enrol", SECRET);
  expect(sealed.ok && sealed.value.known).toMatchObject([{ opens: "parameter enrol", isSealed: true }]);
  const machine = (await machineRows.one(at.db, "m-tho-a"))!;
  await write(at, MACHINE, "m-tho-a", machine.version, {
    "typed.parameters": [{ name: "console", value: "ttyS1,115200" }],
  });
  await makeReady();
  const offer = await armingOffer(at, ARMED.build);
  expect(await problems()).toBe("");
  expect(offer.ok && offer.value.arming.words.at(-1)).toBe("console=ttyS1,115200");
  const preview = offer.ok ? await armingPreview(at, ARMED.build, offer.value) : null;
  expect(preview?.parameters).toEqual([
    expect.objectContaining({
      ...{ name: "console", value: "ttyS1,115200", from: "machine" },
      before: [
        { from: "profile", value: "tty0" },
        { from: "site", value: "ttyS0" },
      ],
    }),
    expect.objectContaining({ name: "enrol", isSecret: true, value: "", from: "site" }),
    expect.objectContaining({ name: "place", value: "rack B", from: "sheet" }),
  ]);
  const first = preview!.texts.at(-1)!.text;
  expect(first).toContain("(stored: parameter enrol)");
  const shown = JSON.stringify([preview, offer, await answersShown(at, ARMED.build)]);
  expect(shown).not.toContain("Zr7");
  expect(shown).not.toMatch(/\$6\$/);
});

it("gives the machine its script with every value quoted, once, and keeps the value in no file", async () => {
  const armed = await armMachine(await desk(), ARMED.build, {
    typed: "N30051",
    minutes: 60,
    asksCode: false,
  });
  expect(armed.ok).toBe(true);
  const query = new URLSearchParams({ mac: ARMED.mac, serial: ARMED.serial, platform: "efi" });
  const script = (await get(`/script?${query.toString()}`)).body.toString();
  expect(script).toMatch(/ console=ttyS1,115200 \|\| goto failed/);
  const token = /\/t\/([\w-]{32})\//.exec(script)?.[1] ?? "";
  for (const path of ["kernel", "initrd/1", "answers/tho-a.ks"])
    expect((await get(`/t/${token}/${path}`)).status).toBe(200);
  const first = (await get(`/t/${token}/first-boot`)).body.toString();
  // A shell reads out of it what was typed, and nothing more.
  const once = first.split("\n").filter((line) => line.startsWith("once 1 "));
  const shell = [`enrol() { printf '[%s]' "$@"; }`, `once() { eval "$2"; }`, ...once].join("\n");
  expect(execFileSync("sh", ["-c", shell]).toString()).toBe(`[--key][${SECRET}][--at][rack B]`);
  expect((await get(`/t/${token}/report/installed?words=`)).status).toBe(200);
  expect((await get(`/t/${token}/first-boot`)).status).toBe(404);
  const files = readdirSync(folder).map((name) => readFileSync(join(folder, name)).toString("latin1"));
  expect(files.length).toBeGreaterThan(0);
  for (const file of files) expect(file).not.toContain("Zr7");
});
