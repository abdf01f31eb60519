import { describe, expect, it } from "vitest";
import { emptyMachine, type MachineDocument } from "@/core/machine";
import { addNote, addTrial, judgeNote, listNotes, notesWithMachines } from "@/server/compat";
import {
  addToRegister,
  driveRegister,
  editDrive,
  registerCsv,
  registerLine,
  shelveDrive,
  wipeDrive,
} from "@/server/drives";
import { addShippedProfiles } from "@/server/profiles";
import { createMachine, previewImport, takeOver } from "@/server/imports";
import { previewList, takeList } from "@/server/machine-list";
import {
  addPicture,
  cloneMachine,
  listMachines,
  machineView,
  onePicture,
  placeInBay,
} from "@/server/machines";
import { benchView, importReadings, typeReading } from "@/server/readings";
import { createSite, listSites, siteView } from "@/server/sites";
import { capture, captures } from "../support/formats";
import { ownDatabase } from "../support/database";
import { exportAll } from "../support/whole";
import { desk } from "../support/desk";
import { MACHINE, SITE } from "@/server/written";
import { write } from "../support/written";

ownDatabase();
const by = "J. Pell";
const must = <T>(answer: { ok: true; value: T } | { ok: false; problems: { message: string }[] }): T => {
  if (!answer.ok) throw new Error(answer.problems.map((p) => p.message).join("; "));
  return answer.value;
};
const refusal = (answer: { ok: boolean; problems?: { message: string }[] }): string =>
  answer.problems?.map((p) => p.message).join("; ") ?? "";
const view = async (id: string) => (await machineView(await desk(), id))!;
const version = async (id: string): Promise<number> => (await view(id)).machine.version;
const codes = async (id: string): Promise<string[]> => (await view(id)).findings.map((f) => f.code);
const big = () => captures("server-uefi-2socket");

describe("an import of everything", () => {
  let [works, first, second] = ["", "", ""];

  it("fills the machine, the drive register and the readings", async () => {
    await addShippedProfiles(await desk());
    works = must(await createSite(await desk(), "Works"));
    first = must(await createMachine(await desk(), works, "wrk-a", big()));
    const { machine, findings } = await view(first);
    expect(machine.document.facts.drives).toHaveLength(11);
    expect(findings.map((f) => f.code)).toContain("drive.unread");
    const register = await driveRegister(await desk());
    expect(register).toHaveLength(11);
    expect(register.find((l) => l.key === "SAMPLESATA0000")).toMatchObject({
      where: "wrk-a",
      verdict: "good",
      entry: { holds: "crypto_LUKS" },
    });
    const bench = (await benchView(await desk(), first, noQuestion))!;
    expect(bench.readings.map((r) => r.what)).toEqual(
      expect.arrayContaining(["lm75-i2c-0-4c temp1", "drive SAMPLENVME0001"]),
    );
  });

  it("shows what would change first, and keeps a name without an identity out", async () => {
    const preview = must(
      await previewImport(await desk(), first, [
        { name: "blkid", text: capture("server-uefi-2socket", "blkid.txt") },
      ]),
    );
    expect(preview.changes).toEqual([]);
    expect(preview.remarks.join()).toContain("a device name that can change");
  });

  it("of a drive in another machine makes it a drive that moved, or one that two machines hold", async () => {
    second = must(
      await createMachine(await desk(), works, "wrk-b", [
        { name: "smart", text: capture("server-uefi-2socket", "smartctl-sdg.json") },
      ]),
    );
    expect(await codes(first)).toContain("drive.elsewhere");
    expect(await codes(second)).toContain("drive.moved-in");
    expect((await registerLine(await desk(), "SAMPLESATA0000"))?.entry.stays.map((s) => s.machine)).toEqual([
      "wrk-a",
      "wrk-b",
    ]);
    // The first machine is read again without it: the dispute is over.
    const lsblk = JSON.parse(capture("server-uefi-2socket", "lsblk.json")) as {
      blockdevices: { serial: string | null }[];
    };
    const without = JSON.stringify({
      blockdevices: lsblk.blockdevices.filter((d) => d.serial !== "SAMPLESATA0000"),
    });
    must(await takeOver(await desk(), first, await version(first), [{ name: "lsblk", text: without }]));
    expect(await codes(first)).not.toContain("drive.elsewhere");
    expect((await registerLine(await desk(), "SAMPLESATA0000"))?.where).toBe("wrk-b");
  });

  it("in the list costs no documents", async () => {
    expect(
      (await listMachines(await desk())).map((m) => [m.name, m.summary.drives, m.summary.health]),
    ).toEqual([
      ["wrk-a", 10, "not known"],
      ["wrk-b", 1, "good"],
    ]);
  });
});

const noQuestion = {
  loadedShare: 0.2,
  otherId: null,
  otherWatts: null,
  otherPrice: null,
  passThrough: false,
  memoryWantedBytes: null,
};

describe("what people know of a machine", () => {
  it("is kept part by part, guarded by its version, and refused with the field", async () => {
    const id = must(
      await createMachine(await desk(), (await listMachines(await desk()))[0]!.siteId, "wrk-c", []),
    );
    must(await write(await desk(), MACHINE, id, 1, { "typed.place": "rack A", "typed.role": "hypervisor" }));
    expect(refusal(await write(await desk(), MACHINE, id, 1, { "typed.place": "rack B" }))).toContain(
      "Someone else saved this meanwhile",
    );
    expect(refusal(await write(await desk(), MACHINE, id, 2, { "typed.bays": [{ columns: 99 }] }))).toContain(
      "typed.bays.0",
    );
    expect((await view(id)).machine.document.typed.place).toBe("rack A");
    const twin = must(await cloneMachine(await desk(), id, "wrk-d"));
    expect((await view(twin)).machine.document).toMatchObject({
      facts: { drives: [] },
      typed: { place: "rack A", role: "hypervisor" },
    });
    expect(refusal(await cloneMachine(await desk(), id, "wrk-d"))).toContain("already has a machine");
  });

  it("puts drives in bays; a drive that is not there is refused", async () => {
    const { machine } = (await view((await listMachines(await desk()))[0]!.id))!;
    must(await placeInBay(await desk(), machine.id, machine.version, "SAMPLESAS0001", "4"));
    expect(
      (await view(machine.id)).machine.document.facts.drives.find((d) => d.id === "SAMPLESAS0001")?.bay,
    ).toBe("4");
    expect(
      refusal(await placeInBay(await desk(), machine.id, await version(machine.id), "NONE", "4")),
    ).toContain("This drive is no longer part of the machine");
  });

  it("takes pictures that are pictures", async () => {
    const id = (await listMachines(await desk()))[0]!.id;
    const png = Buffer.concat([
      Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]),
      Buffer.alloc(40),
    ]);
    const picture = must(
      await addPicture(await desk(), id, { type: "image/png", caption: "front", bytes: png }),
    );
    expect((await onePicture(await desk(), picture))?.bytes.equals(png)).toBe(true);
    expect(
      refusal(
        await addPicture(await desk(), id, { type: "image/png", caption: "", bytes: Buffer.from("<html>") }),
      ),
    ).toContain("Unsupported picture format");
    expect(
      refusal(await addPicture(await desk(), id, { type: "text/html", caption: "", bytes: png })),
    ).toContain("Unsupported picture format");
  });
});

describe("circuits and readings", () => {
  it("make a finding when the machines on a circuit draw more than the site allows", async () => {
    const list = await listMachines(await desk());
    const [a, c] = [list.find((m) => m.name === "wrk-a")!, list.find((m) => m.name === "wrk-c")!];
    const site = (await siteView(await desk(), a.siteId))!;
    must(
      await write(await desk(), SITE, a.siteId, site.version, {
        circuits: [{ name: "A1", limitWatts: 500 }],
      }),
    );
    for (const [m, watts] of [
      [a, 300],
      [c, 260],
    ] as const) {
      must(await write(await desk(), MACHINE, m.id, await version(m.id), { "typed.circuit": "A1" }));
      must(
        await typeReading(await desk(), m.id, {
          kind: "power",
          what: "at the wall",
          state: "loaded",
          value: watts,
          limit: null,
        }),
      );
    }
    const finding = (await view(a.id)).findings.find((f) => f.code === "machine.circuit");
    expect(finding?.says).toContain("draw 560 W under load; the limit of the site is 500 W: 60 W above it");
    expect(
      refusal(
        await typeReading(await desk(), a.id, {
          kind: "power",
          what: "at the wall",
          state: "idle",
          value: NaN,
          limit: null,
        }),
      ),
    ).not.toBe("");
    expect(
      refusal(
        await typeReading(await desk(), a.id, {
          kind: "temperature",
          what: "x",
          state: "idle",
          value: 400,
          limit: null,
        }),
      ),
    ).toContain("is not plausible for temperature");
  });

  it("come out of dropped outputs in a stated condition, and leave the facts alone", async () => {
    const c = (await listMachines(await desk())).find((m) => m.name === "wrk-c")!;
    const sensors = [{ name: "s", text: capture("server-uefi-2socket", "sensors.json") }];
    expect(must(await importReadings(await desk(), c.id, sensors, "loaded"))).toBe(3);
    expect(refusal(await importReadings(await desk(), c.id, [{ name: "x", text: "hello" }], "idle"))).toMatch(
      /No temperature.*not recognised/s,
    );
    const bench = (await benchView(await desk(), c.id, { ...noQuestion, otherWatts: 10, otherPrice: 300 }))!;
    expect(bench.readings.filter((r) => r.state === "loaded" && r.kind === "temperature")).toHaveLength(3);
    expect(bench.machine.document.facts.sensors).toEqual([]);
    expect(bench.verdict.verdict).not.toBe("not enough known");
  });
});

describe("the register", () => {
  it("takes sticks by name, shelves, erases and forgets nothing", async () => {
    const key = must(
      await addToRegister(await desk(), {
        label: "blue stick",
        serial: "",
        model: "Pebble 16",
        media: "usb",
        sizeBytes: 16e9,
        place: "desk",
        spare: false,
        holds: "manuals",
      }),
    );
    expect(key).toBe("label blue stick");
    expect(
      refusal(
        await addToRegister(await desk(), {
          label: "",
          serial: "",
          model: "",
          media: "usb",
          sizeBytes: 1,
          place: "",
          spare: false,
          holds: "",
        }),
      ),
    ).toContain("serial");
    must(await editDrive(await desk(), key, 1, { written: "legacy" }));
    expect(refusal(await editDrive(await desk(), key, 1, { written: "uefi" }))).toContain(
      "Someone else saved this meanwhile",
    );
    must(await wipeDrive(await desk(), key, 2, "overwritten once", "order 7"));
    must(await shelveDrive(await desk(), key, 3, "shelf 2", true));
    const entry = (await registerLine(await desk(), key))!.entry;
    expect(entry).toMatchObject({
      holds: "nothing",
      written: null,
      spare: true,
      place: "shelf 2",
      wipes: [{ was: "manuals", by }],
    });
    expect(await registerCsv(await desk())).toContain("blue stick,Pebble 16,usb,16000000000,shelf 2");
  });
});

describe("compatibility notes", () => {
  it("are judged, tried, and know the machines that hold the part", async () => {
    const subject = { kind: "pci" as const, value: "8086:10d3", name: "" };
    const id = must(
      await addNote(await desk(), {
        subject,
        profile: "cairn-hypervisor",
        version: "9",
        verdict: "unknown",
        condition: "",
        evidence: "",
      }),
    );
    expect(
      refusal(
        await addNote(await desk(), {
          subject: { ...subject, value: "10d3" },
          profile: "x",
          version: "",
          verdict: "works",
          condition: "",
          evidence: "",
        }),
      ),
    ).toContain("hexadecimal");
    must(
      await addTrial(await desk(), id, 1, {
        changed: "driver 2",
        expected: "",
        happened: "link",
        outcome: "worked",
      }),
    );
    expect(
      refusal(
        await judgeNote(await desk(), id, 2, {
          verdict: "works with a condition",
          condition: "",
          evidence: "",
        }),
      ),
    ).toContain("condition");
    must(await judgeNote(await desk(), id, 2, { verdict: "works", condition: "", evidence: "driver 2" }));
    expect((await listNotes(await desk()))[0]?.note).toMatchObject({
      verdict: "works",
      trials: [{ changed: "driver 2" }],
    });
    expect((await notesWithMachines(await desk()))[0]?.machines).toEqual(["wrk-a"]);
  });
});

describe("a list of machines", () => {
  const csv =
    "name,site,model,serial,cores,mac\nwrk-a,Works,Other,SAMPLE0001,99,\nwrk-e,Annex,R114,OST-E,8,02-00-00-00-00-0e\n";

  it("adds what is new and fills what is empty, and overwrites nothing", async () => {
    const preview = must(await previewList(await desk(), csv, "list.csv"));
    expect(preview).toMatchObject({
      newSites: ["Annex"],
      rows: [
        { name: "wrk-a", does: "fills in", fills: ["expected"] },
        { name: "wrk-e", does: "new machine" },
      ],
    });
    expect(must(await takeList(await desk(), csv, "list.csv"))).toEqual({ added: 1, filled: 1 });
    const machines = await listMachines(await desk());
    const a = await view(machines.find((m) => m.name === "wrk-a")!.id);
    expect(a.machine.document.facts.chassis?.model).toBe("Rack-Server-2U");
    expect(a.findings.find((f) => f.code === "machine.not-as-delivered")?.says).toContain(
      "Cores: the delivery note says 99",
    );
    const e = await view(machines.find((m) => m.name === "wrk-e")!.id);
    expect(e.machine.document.facts.ports[0]?.mac).toBe("02:00:00:00:00:0e");
    expect(refusal(await takeList(await desk(), csv, "list.csv"))).toContain("The list has nothing new");
    expect(refusal(await previewList(await desk(), "name,site\nx,\n", "l"))).toContain("no site");
  });
});

it("all of it leaves in the export and is complete", async () => {
  const file = await exportAll();
  expect([file.machines.length, file.drives.length, file.compatNotes.length, file.pictures.length]).toEqual([
    5, 12, 1, 1,
  ]);
  expect(file.readings.length).toBeGreaterThan(10);
  const old = emptyMachine() satisfies MachineDocument;
  expect(old.typed.placed).toEqual({});
});

it("a machine that is refused leaves no site that was named for it, at the second try neither", async () => {
  const sites = async () => (await listSites(await desk())).map((s) => s.site.name);
  const made = async (name: string, texts: { name: string; text: string }[] = []) =>
    createMachine(await desk(), { newSite: "Old works" }, name, texts);
  expect(refusal(await made(" "))).toMatch(/Enter the machine name/);
  expect(await sites()).not.toContain("Old works");
  must(await made("old-1"));
  expect((await sites()).filter((name) => name === "Old works")).toHaveLength(1);
});
