import { EventEmitter } from "node:events";
import type { IncomingMessage, ServerResponse } from "node:http";
import { mkdirSync, renameSync, rmSync, truncateSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { gzipSync } from "node:zlib";
import { describe, expect, it, vi } from "vitest";
import { armings } from "@/db/schema";
import { bootRows, buildRows, machineRows, runRows } from "@/db";
import { issueRevision } from "@/server/builds";
import { adoptStranger } from "@/server/netboot/adopt";
import { armMachine, disarm } from "@/server/netboot/arm";
import { armingOffer } from "@/server/netboot/offer";
import { ALL_STRANGERS, bootBoard } from "@/server/netboot/board";
import { limiter } from "@/server/netboot/listener";
import { versionsProblem } from "@/server/netboot/versions";
import { rangeOf, sendFile } from "@/server/netboot/send";
import { addSeconds } from "@/core/units";
import { ARMED, ask, INITRD, KERNEL } from "../support/boot-image";
import { edit, makeReady } from "../support/armed";
import { ownBootService } from "../support/boot-service";
import { ownDatabase } from "../support/database";
import { desk } from "../support/desk";

// One machine is armed, and walks the chain over real HTTP as its firmware, its boot loader and its installer do.

ownDatabase();
const service = ownBootService();
const get = (path: string, more: Parameters<typeof ask>[2] = {}) => ask(service.base, path, more);
const scriptOf = (changes: Record<string, string> = {}, more = {}) => {
  const told = { mac: ARMED.mac, serial: ARMED.serial, platform: "efi", ...changes };
  // As a boot loader writes it, in which a blank is no +.
  const query = Object.entries(told).map(([name, value]) => `${name}=${encodeURIComponent(value)}`);
  return get(`/script?${query.join("&")}`, more);
};
const text = ({ body }: { body: Buffer }): string => body.toString("utf8");
const token = (script: string): string => /\/t\/([\w-]{32})\/kernel /.exec(script)?.[1] ?? "none";
const row = async () => (await bootBoard(await desk("J. Pell", service.now))).rows[0]!;
const refusals = async (): Promise<string[]> => {
  const { id } = await row();
  const log = await bootRows.log((await desk()).db, id);
  return log.flatMap(({ event }) => (event.kind === "refused" ? [event.words] : []));
};
const arm = async (typed = "N30051", minutes = 60) =>
  armMachine(await desk("J. Pell", service.now), ARMED.build, { typed, minutes, asksCode: false });
const said = (answer: Awaited<ReturnType<typeof arm>>): string =>
  answer.ok ? "armed" : answer.problems.map((p) => p.message).join(" ");

describe("before anybody has armed it", () => {
  it("says all that stands in the way, and arms nothing", async () => {
    const words = said(await arm());
    for (const problem of [
      /Network boot is off at Thornhope/,
      /Issue a revision first/,
      /The sheet has blockers/,
    ])
      expect(words).toMatch(problem);
    expect(await bootRows.newestIds((await desk()).db, 9, "")).toEqual([]);
  });

  it("a machine that asks is told so, starts from its disk, and is listed", async () => {
    expect(text(await get("/boot.ipxe"))).toMatch(/^#!ipxe\n[^]*chain --replace script\?mac=/);
    const script = text(
      await scriptOf({ mac: "02:99:00:00:00:07", serial: "X 1/2", maker: "Ostler", uuid: "u-1" }),
    );
    expect(script).toMatch(
      /^#!ipxe\n:local\necho Derrick: This machine is not armed for an installation[^]*\nexit 1\n$/,
    );
    const [stranger] = (await bootBoard(await desk())).strangers;
    expect(stranger).toMatchObject({
      mac: "02:99:00:00:00:07",
      machine: null,
      last: {
        event: { kind: "asked", given: false, caller: { serial: "X 1/2", maker: "Ostler", uuid: "u-1" } },
      },
    });
  });
});

it("who names no MAC goes to its disk, and is listed nowhere", async () => {
  const before = (await bootBoard(await desk())).strangers.length;
  for (const mac of ["", "no-mac", "02:61", `${ARMED.mac}:00`])
    expect(text(await scriptOf({ mac }))).toMatch(/reported no MAC address[^]*exit 1/);
  expect(text(await get("/script"))).toMatch(/reported no MAC address/);
  expect((await bootBoard(await desk())).strangers).toHaveLength(before);
});

describe("a machine that nobody knows", () => {
  const make = async (mac: string, site = ARMED.site, name = "tho-c") => {
    const answer = await adoptStranger(await desk(), mac, site, name);
    return answer.ok ? answer.value : answer.problems.map((p) => p.message).join(" ");
  };

  it("is made a machine of what it told, once, and is known by its MAC from then on", async () => {
    const mac = "02:99:00:00:00:07";
    expect(await make("02:99:00:00:00:99")).toMatch(/No machine with this MAC has sent a request/);
    expect(await make(mac, "s-nowhere")).toMatch(/Choose the site/);
    expect(await make(mac, ARMED.site, "tho-a")).toMatch(/already has a machine with the name tho-a/);
    const both = await Promise.all([make(mac), make(mac, ARMED.site, "tho-d")]);
    const id = both.find((b) => b.startsWith("m"))!;
    expect(both.filter((b) => b !== id)).toEqual([expect.stringMatching(/^Already known: tho-/)]);
    const made = (await machineRows.one((await desk()).db, id))!.document;
    expect(made.facts).toMatchObject({
      chassis: { maker: "Ostler", serial: "X 1/2", uuid: "u-1" },
      ports: [{ mac }],
      drives: [],
    });
    expect(made.sources["chassis.serial"]).toMatchObject({ tool: "network boot" });
    expect((await bootBoard(await desk())).strangers[0]).toMatchObject({ mac, machine: { id } });
    // A serial that makers leave in every firmware is none.
    await scriptOf({ mac: "02:99:00:00:00:08", serial: "To be filled by O.E.M." });
    const other = await make("02:99:00:00:00:08", ARMED.site, "tho-e");
    expect((await machineRows.one((await desk()).db, other))!.document.facts.chassis?.serial).toBeNull();
  });
});

describe("a rack that nobody has armed", () => {
  it("asks all at once and is told at once; each stands in the list, of which a page shows the newest", async () => {
    const macs = Array.from({ length: 150 }, (_, n) => `02:98:00:00:00:${n.toString(16).padStart(2, "0")}`);
    const told = await Promise.all([...macs, ...macs].map((mac) => scriptOf({ mac })));
    expect(
      told.filter((answer) => !text(answer).includes("This machine is not armed for an installation")),
    ).toEqual([]);
    const newest = await bootBoard(await desk());
    expect([newest.strangers.length, newest.strangersInAll]).toEqual([50, 152]);
    const { strangers, strangersInAll } = await bootBoard(await desk(), ALL_STRANGERS);
    expect(strangersInAll).toBeNull();
    for (const mac of macs) expect(strangers.find((s) => s.mac === mac)?.times, mac).toBe(2);
    // The oldest are forgotten, and no others.
    const event = { kind: "refused" as const, words: "" };
    const at = "2026-11-28T00:00:00.000Z";
    await (await desk()).write((tx) => bootRows.addStrangers(tx, [{ mac: "", at, event }], 3));
    const kept = await bootRows.strangers((await desk()).db, 9);
    expect([kept[0]!.mac, kept.reduce((sum, { times }) => sum + times, 0)]).toEqual(["", 3]);
  });
});

describe("kernel and initial file system", () => {
  const at = ".derrick/versions";
  const served = (name: string, content: Buffer) => {
    mkdirSync(at, { recursive: true });
    writeFileSync(join(at, name), content);
    return { path: join(at, name), bytes: content.length, spans: [{ offset: 0, length: content.length }] };
  };
  const kernel = Buffer.alloc(4096);
  kernel.write("HdrS", 0x202);
  kernel.writeUInt16LE(0x400, 0x20e);
  kernel.write("6.1.0-18-amd64 (builder)\0", 0x600);
  const archive = (version: string): Buffer => {
    const name = `lib/modules/${version}/a.ko\0`;
    const sizes = [1, 33188, 0, 0, 1, 0, 0, 0, 0, 0, 0, name.length, 0].map((n) =>
      n.toString(16).padStart(8, "0"),
    );
    return Buffer.from(`070701${sizes.join("")}${name}`.padEnd(256, "\0"));
  };

  it("of different versions arm nothing; what is packed otherwise is said not to be compared", async () => {
    const one = served("kernel", kernel);
    const compared = (name: string, content: Buffer) => versionsProblem(one, [served(name, content)]);
    expect(await compared("same", gzipSync(archive("6.1.0-18-amd64")))).toBeNull();
    expect(await compared("other", gzipSync(archive("6.1.0-17-amd64")))).toMatchObject({
      ...{
        stop: true,
        words: expect.stringMatching(/is 6\.1\.0-18-amd64, and .* modules for 6\.1\.0-17-amd64/),
      },
    });
    expect(await compared("xz", Buffer.from("\xfd7zXZ\0", "latin1"))).toMatchObject({
      ...{ stop: false, words: expect.stringMatching(/initramfs were not compared/) },
    });
    rmSync(at, { recursive: true });
    // What is gone is not taken for what was seen there before.
    expect(await compared("same", gzipSync(archive("6.1.0-18-amd64")))).toMatchObject({
      ...{ stop: false, words: expect.stringMatching(/could not be read/) },
    });
    rmSync(at, { recursive: true });
    expect(await versionsProblem({ ...one, path: "package.json", bytes: 9 }, [])).toMatchObject({
      stop: false,
    });
  });
});

describe("once it is armed", () => {
  it("takes the end of the serial as it was read, names what is erased, and arms no machine twice", async () => {
    await makeReady();
    const offer = await armingOffer(await desk(), ARMED.build);
    expect(offer.ok && offer.value.arming).toMatchObject({
      machine: { name: "tho-a", macs: [ARMED.mac] },
      erases: [
        {
          ...{ look: expect.stringMatching(/Sallow 512/), holds: expect.stringMatching(/old-root/) },
          // Its erasing was agreed to by now, so that its serial is asked for nowhere any more.
          serial: ARMED.drive,
        },
      ],
      answers: ["tho-a.ks"],
    });
    // Before that, there is no offer that could show it.
    await edit({ "storage.erase": [] });
    expect(await armingOffer(await desk(), ARMED.build)).toMatchObject({ ok: false });
    await makeReady();
    expect(said(await arm("0051"))).toMatch(/does not end with these characters/);
    expect(said(await arm("130051"))).toMatch(/does not end with these characters/);
    expect(said(await arm("N30051", 2))).toMatch(/5 minutes to 24 hours/);
    const both = await Promise.all([arm(" n3 0051 "), arm()]);
    expect(both.map(said).sort()).toEqual(["armed", expect.stringMatching(/^tho-a is already armed/)]);
    expect(said(await arm())).toMatch(/already armed/);
  });

  it("refused, it starts no run of another sheet of the same machine", async () => {
    const at = await desk();
    const { sheet } = (await buildRows.one(at.db, ARMED.build))!;
    await at.write((tx) => buildRows.insert(tx, { id: "b-second", number: "B-0999", sheet }, at.stamp()));
    await issueRevision(at, "b-second", 1);
    const second = await armMachine(at, "b-second", { typed: ARMED.serial, minutes: 60, asksCode: false });
    expect(said(second as never)).toMatch(/tho-a is already armed/);
    expect(await runRows.ofBuild(at.db, "b-second")).toBeNull();
  });

  it("another serial, or none, is given nothing but its own disk", async () => {
    for (const serial of ["PPN30052", "", "To be filled by O.E.M."])
      expect(text(await scriptOf({ serial }))).toMatch(/:local\necho Derrick: /);
    expect((await row()).state).toMatchObject({
      status: "waiting",
      refusal: expect.stringMatching(/reports no serial number/),
    });
  });

  let current = "";
  it("walks the chain: script, kernel, initial file system, answers, and each byte is right", async () => {
    // Whoever looks only has had nothing.
    await scriptOf({}, { method: "HEAD" });
    const script = text(await scriptOf());
    current = token(script);
    // Another one with the same MAC and serial gets nothing, takes nothing away, and stands on the board.
    expect(text(await scriptOf())).toMatch(/already started once[^]*exit 1/);
    expect((await row()).state).toMatchObject({
      status: "fetching",
      second: { address: expect.any(String) as string },
    });
    expect(script).toContain(`inst.ks=${service.base}/t/${current}/answers/tho-a.ks`);
    const head = await get(`/t/${current}/kernel`, { method: "HEAD" });
    expect([head.status, head.headers["content-length"], head.body.length]).toEqual([
      200,
      String(KERNEL.length),
      0,
    ]);
    expect(head.headers["content-encoding"]).toBeUndefined();
    expect((await row()).state.reached.kernel).toBeUndefined();
    expect((await get(`/t/${current}/kernel`)).body.equals(KERNEL)).toBe(true);
    // A transfer that breaks off is none.
    expect((await get(`/t/${current}/initrd/1`, { cutAfter: 1000 })).body.length).toBeLessThan(INITRD.length);
    expect((await get(`/t/${current}/initrd/1`)).body.equals(INITRD)).toBe(true);
    expect(text(await get(`/t/${current}/tree/.treeinfo`))).toMatch(/version = 7\.4/);
    const part = await get(`/t/${current}/initrd/1`, { headers: { range: "bytes=5-14" } });
    expect([part.status, part.headers["content-range"], part.body]).toEqual([
      ...[206, `bytes 5-14/${INITRD.length}`, INITRD.subarray(5, 15)],
    ]);
    expect((await row()).state.status).toBe("fetching");
    const answers = text(await get(`/t/${current}/answers/tho-a.ks?from=a-client-with-a-query`));
    expect(answers).toMatch(/^# Lowland Server 7 on /);
    expect(answers).toContain(`${service.base}/t/${current}/report/installed`);
    // What was sent is written down after the last byte of it has gone.
    await vi.waitFor(async () => expect((await row()).state.status).toBe("installing"), 10_000);
    expect((await row()).state.reached).toMatchObject({ answers: expect.any(String) as string });
  });

  it("the second start goes to the disk, and a replayed token opens nothing after a while", async () => {
    expect(text(await scriptOf())).toMatch(/Already installed[^]*exit 1/);
    const later = addSeconds((await row()).state.spentAt!, 300);
    service.now = later;
    expect((await get(`/t/${current}/answers/tho-a.ks`)).status).toBe(404);
    expect((await refusals()).at(-1)).toMatch(
      /answers\/tho-a\.ks: all files of the installation were loaded/,
    );
    expect((await get(`/t/${current}/kernel`)).status).toBe(404);
    // What the installation reads to its end stays open for it, also when the time in which it might begin is over.
    service.now = addSeconds(later, 7200);
    expect(text(await get(`/t/${current}/tree/.treeinfo`))).toMatch(/version = 7\.4/);
    const first = text(await get(`/t/${current}/first-boot`));
    expect(first).toMatch(new RegExp(`^report='?${service.base}/t/${current}/report/'?$`, "m"));
    expect(first).toContain(`${service.base}/boot.ipxe`);
    service.now = undefined;
  });

  it("takes reports twice, in any order and after the end, and keeps the first times", async () => {
    const report = (stage: string, body = "") =>
      get(`/t/${current}/report/${stage}`, {
        method: "POST",
        body,
        headers: { "content-type": "application/x-www-form-urlencoded" },
      });
    expect((await report("installed", "words=all%20well%0Ax")).status).toBe(200);
    expect((await get(`/t/${current}/report/first-boot?words=up`)).status).toBe(200);
    expect((await report("done")).status).toBe(200);
    const { state } = await row();
    expect(state.status).toBe("done");
    for (const stage of ["failed", "done", "installed"]) await report(stage);
    expect((await row()).state).toEqual(state);
    expect((await report("unheard-of")).status).toBe(404);
    expect((await get(`/t/${current}/first-boot`)).status).toBe(404);
    // Ten megabytes of words are none of a machine's.
    await report("done", `words=${"x".repeat(10_000_000)}`).catch(() => undefined);
    expect((await row()).state).toEqual(state);
    const log = await bootRows.log((await desk()).db, (await row()).id);
    expect(log.every(({ event }) => event.kind !== "reported" || event.words.length <= 400)).toBe(true);
    expect(log.find(({ event }) => event.kind === "reported")?.event).toMatchObject({ words: "all well x" });
  });
});

describe("what else is asked of it", () => {
  const armed = async (): Promise<string> => {
    expect(said(await arm())).toBe("armed");
    return token(text(await scriptOf()));
  };

  it("there is nothing beside what an armed machine needs, and nothing is told of it", async () => {
    const own = await armed();
    for (const path of [
      ...[
        "/",
        "/builds",
        "/api/v1/export",
        "/_next/static/x.js",
        "/t/",
        `/t/${own}`,
        `/t/${own}/`,
        `/t/${own}/other`,
      ],
      ...[
        `/t/${"A".repeat(32)}/kernel`,
        `/t/${own.slice(1)}/kernel`,
        `/t/${own}/initrd/2`,
        `/t/${own}/initrd/0`,
      ],
      ...[
        `/t/${own}/tree/../kernel`,
        `/t/${own}/tree/%2e%2e/kernel`,
        `/t/${own}/tree/%252e%252e/x`,
        `/t/${own}/tree/a%00b`,
      ],
      ...[
        `/t/${own}/answers/..%2f..%2fetc%2fpasswd`,
        `/t/${own}/answers/other.ks`,
        `//t/${own}/kernel`,
        "/%ff",
        `/t/${own}/tree/netboot`,
      ],
      `/t/${own}/tree/${"x".repeat(500)}`,
    ]) {
      const { status, body } = await get(path);
      expect([path, status, body.toString()]).toEqual([path, 404, "Not found.\n"]);
    }
    for (const method of ["PUT", "DELETE", "OPTIONS", "PATCH"])
      expect((await get(`/t/${own}/kernel`, { method })).status).toBe(404);
    expect((await get("/script", { method: "POST", body: "x" })).status).toBe(404);
  });

  it("nothing is given out of a sheet that was changed since, and called off it gives nothing at all", async () => {
    await disarm(await desk(), (await row()).id);
    const own = await armed();
    await edit({ "answers.locale": "en_IE.UTF-8" });
    expect((await get(`/t/${own}/answers/tho-a.ks`)).status).toBe(404);
    expect((await refusals()).at(-1)).toMatch(/has changed since the machine was armed/);
    await edit({ "answers.locale": "en_GB.UTF-8" });
    expect((await get(`/t/${own}/answers/tho-a.ks`)).status).toBe(200);
    const { id } = await row();
    expect((await disarm(await desk(), id)).ok).toBe(true);
    expect((await get(`/t/${own}/kernel`)).status).toBe(404);
    expect((await get(`/t/${own}/report/done`, { method: "POST" })).status).toBe(404);
    expect(text(await scriptOf())).toMatch(/was cancelled/);
    expect((await disarm(await desk(), id)).ok).toBe(false);
    expect((await row()).state.status).toBe("cancelled");
  });

  it("an image that is taken away, or exchanged, is not served", async () => {
    await makeReady();
    const own = await armed();
    const { db } = await desk();
    const notes = (await runRows.log(db, (await runRows.openOf(db, ARMED.build))!)).flatMap(({ event }) =>
      event.kind === "note" ? [event.text] : [],
    );
    expect(notes).toEqual(["Armed with revision C of the sheet, while this run uses revision B."]);
    const file = join(service.folder, "lowland-server-7.4-x86_64.iso");
    renameSync(file, `${file}.away`);
    expect((await get(`/t/${own}/kernel`)).status).toBe(404);
    expect((await refusals()).at(-1)).toMatch(/has no file lowland/);
    renameSync(`${file}.away`, file);
    expect((await get(`/t/${own}/kernel`)).status).toBe(200);
    truncateSync(file, 2_000_000_000);
    expect((await get(`/t/${own}/kernel`)).status).toBe(404);
    expect((await refusals()).at(-1)).toMatch(/another size/);
    rmSync(file);
    await disarm(await desk(), (await row()).id);
    expect(said(await arm())).toMatch(/has no file lowland/);
  });

  it("no clear token, and no hash of a password, stands in the database", async () => {
    const { db } = await desk();
    const { id, tokenHash } = armings;
    const rows = await db.select({ id, tokenHash }).from(armings);
    expect(rows.length).toBeGreaterThan(1);
    for (const { id, tokenHash } of rows) {
      expect(tokenHash).toMatch(/^[0-9a-f]{64}$/);
      expect(JSON.stringify(await bootRows.log(db, id))).not.toMatch(/\$6\$|\/t\/[\w-]{32}\//);
    }
  });
});

it.each([
  [undefined, null],
  ["bytes=0-", { from: 0, to: 99 }],
  ["bytes=10-19", { from: 10, to: 19 }],
  ["bytes=90-500", { from: 90, to: 99 }],
  ["bytes=-10", { from: 90, to: 99 }],
  ["bytes=-500", { from: 0, to: 99 }],
  ["bytes=-0", "none"],
  ["bytes=100-", "none"],
  ["bytes=20-10", null],
  ["bytes=0-1,5-6", null],
  ["bytes=-", null],
  ["lines=1-2", null],
] as const)("a range of %s", (header, part) => expect(rangeOf(header, 100)).toEqual(part));

it("an address that asks without end is held up, and no other one", () => {
  let now = 0;
  const may = limiter(() => now);
  const count = (address: string, times: number): number =>
    Array.from({ length: times }, () => may(address)).filter(Boolean).length;
  expect(count("10.0.0.1", 1000)).toBe(400);
  expect(count("10.0.0.2", 10)).toBe(10);
  now += 1000;
  expect(count("10.0.0.1", 1000)).toBe(50);
});

it("an arming that cannot be read arms nothing, and what its machine asks is kept", async () => {
  const { write } = await desk();
  await write((tx) => tx.run(`update armings set agreed = '{}'`));
  expect(text(await scriptOf())).toContain("This machine is not armed for an installation");
  expect((await bootRows.strangers((await desk()).db, 1))[0]?.mac).toBe(ARMED.mac);
});

it("counts a file as whole whose reader closes at its last byte", async () => {
  const path = join(service.folder, "closed-at-once");
  writeFileSync(path, Buffer.alloc(4000, 7));
  // A response whose client is gone the moment that it has all: its end is never written.
  const response = Object.assign(new EventEmitter(), {
    writeHead: () => undefined,
    write(_: Buffer, told: () => void) {
      told();
      queueMicrotask(() => response.emit("close"));
    },
    end: () => undefined,
    destroy: () => undefined,
  });
  const served = { path, bytes: 4000, spans: [{ offset: 0, length: 4000 }] };
  const request = { method: "GET", headers: {} } as IncomingMessage;
  const sent = await sendFile(request, response as unknown as ServerResponse, served);
  expect(sent).toEqual({ whole: true, bytes: 4000 });
});

it("a serial with + and & in it is heard as it is", async () => {
  await get("/script?mac=02-99-00-00-00-08&serial=A+B&C%231&uuid=u&maker=Pip+Co&model=&platform=efi");
  const [last] = (await bootBoard(await desk())).strangers;
  expect(last?.last.event).toMatchObject({ caller: { serial: "A+B&C#1", maker: "Pip+Co" } });
});
