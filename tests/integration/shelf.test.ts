import { createHash } from "node:crypto";
import {
  copyFileSync,
  cpSync,
  mkdirSync,
  readFileSync,
  symlinkSync,
  truncateSync,
  writeFileSync,
} from "node:fs";
import { join } from "node:path";
import { beforeAll, describe, expect, it, vi } from "vitest";
import { naming } from "../support/steps";
import { openDatabase, profileRows, transferRows } from "@/db";
import { buildView, createBuild, issueRevision } from "@/server/builds";
import { agreeToErase, saveEdits } from "@/server/sheet-acts";
import { database } from "@/server/database";
import { addToRegister, editDrive, registerLine, writeDrive } from "@/server/drives";
import { importAll } from "@/server/exports";
import { computeFromFolder, imageFolder, shelveFromFolder, stopFolderJob } from "@/server/image-folder";
import { addFile, imageView, listImages, createImage } from "@/server/images";
import { addShippedProfiles, importProfile, profileView, saveProfile } from "@/server/profiles";
import { command, runView, startRun } from "@/server/runs";
import { bootTruth, corpusFile, inspectFile } from "../support/corpus";
import { ownDatabase } from "../support/database";
import { exportAll } from "../support/whole";
import { desk } from "../support/desk";

const hand = "M. Arkle";

const { folder } = ownDatabase();
const shelf = join(folder, "images");
const by = "M. Arkle";
type Said<T> = { ok: true; value: T } | { ok: false; problems: { message: string }[] };
const must = <T>(answer: Said<T>): T => {
  if (!answer.ok) throw new Error(answer.problems.map((p) => p.message).join("; "));
  return answer.value;
};
const refusal = (answer: Said<unknown>): string =>
  answer.ok ? "" : answer.problems.map((p) => p.message).join("; ");
const inside = (file: string) => {
  const { value, bytesRead } = inspectFile(corpusFile(file));
  return { ...value, bytesRead };
};

beforeAll(async () => {
  await importAll(await desk(hand), readFileSync("demo/marrowby-water.json", "utf8"), { rebase: true });
  mkdirSync(shelf);
  copyFileSync(corpusFile("p04-both-hybrid-gpt.iso"), join(shelf, "lowland-server-7.5-x86_64.iso"));
  writeFileSync(join(shelf, "empty.iso"), "");
  writeFileSync(join(shelf, "large.iso"), "");
  truncateSync(join(shelf, "large.iso"), 3e9);
  symlinkSync("/etc/passwd", join(shelf, "link.iso"));
  mkdirSync(join(shelf, "deeper"));
  writeFileSync(join(shelf, ".half-copied.iso"), "x");
});

describe("the image folder of the server", () => {
  const ask = async () => must((await imageFolder(await desk(hand)))!);
  const until = async (name: string, state: string): Promise<void> => {
    for (let i = 0; i < 400; i += 1) {
      if ((await ask()).find((f) => f.name === name)?.job?.state === state) return;
      await new Promise((r) => setTimeout(r, 25));
    }
    throw new Error(`${name} did not become ${state}`);
  };

  it("is absent until it is named, and said to be so when it cannot be read", async () => {
    delete process.env.DERRICK_IMAGE_DIR;
    expect(await imageFolder(await desk(hand))).toBeNull();
    expect(refusal(await shelveFromFolder(await desk(hand), "x.iso"))).toContain(
      "DERRICK_IMAGE_DIR is not set",
    );
    process.env.DERRICK_IMAGE_DIR = join(folder, "nowhere");
    expect(refusal((await imageFolder(await desk(hand)))!)).toContain("cannot be read");
    process.env.DERRICK_IMAGE_DIR = shelf;
  });

  it("lists ordinary files, no links, no folders and nothing that is hidden", async () => {
    expect((await ask()).map((f) => [f.name, f.sizeBytes])).toEqual([
      ["empty.iso", 0],
      ["large.iso", 3e9],
      ["lowland-server-7.5-x86_64.iso", 3_145_728],
    ]);
  });

  it.each(["../test.db", "/etc/passwd", "link.iso", "deeper", "deeper/x", "", "."])(
    "takes %j for no name of a file in it",
    async (name) => {
      expect(refusal(await shelveFromFolder(await desk(hand), name))).toContain("has no file");
      expect(refusal(await computeFromFolder(await desk(hand), "i-cairn-9", name))).toContain("has no file");
    },
  );

  it("puts a file on the shelf with what is inside, and its checksum when that is computed", async () => {
    const name = "lowland-server-7.5-x86_64.iso";
    const { id, known } = must(await shelveFromFolder(await desk(hand), name));
    expect(known).toBe(false);
    await until(name, "done");
    const view = (await imageView(await desk(hand), id))!;
    expect(view.image).toMatchObject({
      name: "Lowland Server 7.5",
      profile: "lowland-server",
      version: "7.5",
      architecture: "x86_64",
      bootModes: ["uefi", "legacy"],
      inside: { fileName: name, by },
    });
    const sha = createHash("sha256")
      .update(readFileSync(join(shelf, name)))
      .digest("hex");
    await expect
      .poll(async () => (await imageView(await desk(hand), id))?.image.computed?.checksum.value)
      .toBe(sha);
    expect((await ask()).find((f) => f.name === name)?.image?.id).toBe(id);
    expect(must(await shelveFromFolder(await desk(hand), name))).toEqual({ id, known: true });
    await until(name, "done");
  });

  it("refuses an empty file, and can be stopped in the middle of a large one, which keeps nothing", async () => {
    expect(refusal(await shelveFromFolder(await desk(hand), "empty.iso"))).toContain("empty.iso is empty");
    const { id } = must(await shelveFromFolder(await desk(hand), "large.iso"));
    await until("large.iso", "working");
    await stopFolderJob(await desk(hand), "large.iso");
    await until("large.iso", "stopped");
    expect((await imageView(await desk(hand), id))?.image.computed).toBeNull();
    expect((await imageView(await desk(hand), id))?.image.inside?.found.sizeBytes).toBe(3e9);
  });
});

describe("a dropped file", () => {
  it("that is on the shelf by name and size only gets what was found", async () => {
    const found = inside("p15-mkrescue-x64efi.iso");
    const first = must(await addFile(await desk(hand), "tussock-host-5.1.iso", found));
    expect(first.known).toBe(false);
    expect(must(await addFile(await desk(hand), "tussock-host-5.1.iso", found))).toEqual({
      id: first.id,
      known: true,
    });
    const copy = must(await addFile(await desk(hand), "copy of tussock 5.1.iso", found));
    const marks = (await listImages(await desk(hand))).find((i) => i.id === copy.id)?.marks;
    expect(marks).toEqual([{ kind: "same file", words: "same file as Tussock Host 5.1", other: first.id }]);
  });

  it("is refused when the inspector did not finish, or when it is empty", async () => {
    expect(refusal(await addFile(await desk(hand), "x.iso", { sizeBytes: 4 }))).toContain(
      "The result of the inspection is incomplete",
    );
    const none = { ...inside("p20-zeros.iso"), sizeBytes: 0 };
    expect(refusal(await addFile(await desk(hand), "x.iso", none))).toContain(
      "cannot be added to the library",
    );
  });

  it("shows what goes with it from both sides", async () => {
    const companions = async (id: string) =>
      (await imageView(await desk(hand), id))?.companions.map((c) => `${c.purpose} ${c.name}`);
    expect(await companions("i-cairn-9")).toEqual(["guest drivers Guest drivers for Cairn 9"]);
    expect(await companions("i-cairn-guests")).toEqual(["installer Cairn Hypervisor 9.0, Ostler build"]);
  });
});

describe("editions of a profile", () => {
  const shown = async () => (await profileView(await desk(hand), "hopper-backup", "3"))!;

  it("grow by one with each change; the same text again is no new one", async () => {
    const { yaml } = await shown();
    expect(must(await importProfile(await desk(hand), yaml)).edition).toBe(1);
    const changed = yaml.replace("likely: 480", "likely: 540");
    expect(must(await importProfile(await desk(hand), changed))).toEqual({
      key: "hopper-backup",
      version: "3",
      edition: 2,
    });
    expect((await shown()).editions.map((e) => [e.edition, e.by])).toEqual([
      [2, by],
      [1, ""],
    ]);
    expect((await profileView(await desk(hand), "hopper-backup", "3", 1))?.yaml).toBe(yaml);
    expect(await profileView(await desk(hand), "hopper-backup", "3", 9)).toBeNull();
  });

  it("stay with the build that was made with them, which says that a newer one exists", async () => {
    const codes = async () =>
      (await buildView(await desk(hand), "b-cl-bk1"))!.evaluation.findings.map((f) => f.code);
    // One run of its own stands behind this wait; what the profile says of it stands among the inputs.
    const given = async () =>
      (await buildView(await desk(hand), "b-cl-bk1"))!.evaluation.steps.find(
        (s) => s.id === "screen-writing",
      )!.figure!.inputs;
    expect(await codes()).toContain("image.profile-newer");
    expect((await given())[0]).toMatchObject({ name: "time of the profile", value: "8 min" });
    expect((await given())[1]).toMatchObject({ name: "runs", source: "measured" });
    const { build } = (await buildView(await desk(hand), "b-cl-bk1"))!;
    const taken = await saveEdits(await desk(hand), "b-cl-bk1", build.version, [
      { path: "image.edition", before: 1, after: 2 },
    ]);
    expect(taken.ok).toBe(true);
    expect(await codes()).not.toContain("image.profile-newer");
    expect((await given())[0]?.value).toBe("9 min");
  });

  it("are kept by the form with the text's comments, and refused on an older edition or another identity", async () => {
    const { profile, edition, yaml } = await shown();
    const save = async (fields: object, on = edition) =>
      saveProfile(await desk(hand), "hopper-backup", "3", on, fields);
    expect(refusal(await save(profile, 1))).toContain("Revision 2 was saved by M. Arkle meanwhile");
    expect(refusal(await save({ ...profile, version: "4" }))).toContain("identify a profile");
    expect(refusal(await save({ ...profile, screens: [] }))).toMatch(/^screens/);
    expect(must(await save({ ...profile, name: "Hopper Upland" })).edition).toBe(3);
    const next = await shown();
    expect(next.profile.name).toBe("Hopper Upland");
    expect(next.yaml.split("\n").slice(0, 2)).toEqual(yaml.split("\n").slice(0, 2));
  });

  it("of a person stay the newest when Derrick is updated; shipped ones are followed by the next shipped one", async () => {
    const { write } = await database();
    const put = (key: string, person: string, edition: number) =>
      write((tx) =>
        profileRows.add(tx, {
          key,
          version: "12",
          edition,
          name: "Millrace",
          by: person,
          updatedAt: "2026-11-20T08:00:00Z",
          yaml: "old text",
        }),
      );
    await put("millrace", "", 2);
    await addShippedProfiles(await desk(hand));
    expect((await profileView(await desk(hand), "millrace", "12"))?.edition).toBe(3);
    await put("millrace", "J. Pell", 4);
    await addShippedProfiles(await desk(hand));
    const { db } = await database();
    expect((await profileRows.editions(db, "millrace", "12"))[0]?.edition).toBe(4);
  });

  it("all travel in the export, and come back as they were", async () => {
    const editions = (await exportAll()).profiles
      .filter((p) => p.key === "hopper-backup")
      .map((p) => p.edition);
    expect(editions).toEqual([3, 2, 1]);
  });
});

describe("sticks and what runs measure", () => {
  it("a stick says what it carries after it was written down, and refuses an image that is gone", async () => {
    const key = must(
      await addToRegister(await desk(hand), {
        label: "red stick",
        serial: "RED-0042",
        model: "",
        media: "usb",
        sizeBytes: 8e9,
        place: "",
        spare: false,
        holds: "",
      }),
    );
    must(await editDrive(await desk(hand), key, 1, { speedClass: "USB 3" }));
    const writing = {
      imageId: "i-hopper-3",
      written: "legacy" as const,
      scheme: "MBR" as const,
      compared: true,
    };
    expect(refusal(await writeDrive(await desk(hand), key, 2, { ...writing, imageId: "i-gone" }))).toContain(
      "This image is no longer in the library",
    );
    must(await writeDrive(await desk(hand), key, 2, writing));
    expect((await registerLine(await desk(hand), key))?.entry).toMatchObject({
      speedClass: "USB 3",
      written: "legacy",
      scheme: "MBR",
      holds: "installer: Hopper Backup 3.2",
      carries: { imageId: "i-hopper-3", compared: true },
    });
  });

  it("a run keeps how long a writing took; the next plan uses it, and the stick knows what it carries", async () => {
    const id = await createBuild(await desk(hand), "m-tho-b");
    const image = must(
      await createImage(await desk(hand), {
        name: "Small",
        profile: "lowland-server",
        version: "7.9",
        architecture: "x86_64",
        sizeBytes: 240_000_000,
        bootModes: ["uefi", "legacy"],
        loaderSigned: "signed",
        fileName: "s.iso",
      }),
    );
    const set = async (changes: Record<string, unknown>) => {
      const { build } = (await buildView(await desk(hand), id))!;
      const edits = Object.entries(changes).map(([path, after]) => ({ path, before: null, after }));
      expect(await saveEdits(await desk(hand), id, build.version, edits)).toMatchObject({ ok: true });
    };
    const { drives } = (await buildView(await desk(hand), id))!.context.machine!.document.facts;
    await set({
      "image.id": image,
      "image.way": "stick",
      "image.stick.key": "RED-0042",
      "storage.target": drives[0]?.id,
      "network.address": "10.61.20.13",
      "answers.hostName": "tho-c",
      "answers.accounts": [{ name: "jpell", role: "administrator", logIn: "key" }],
    });
    const serial = drives[0]?.serial ?? "";
    const asked = (await buildView(await desk(hand), id))!.build.version;
    expect(await agreeToErase(await desk(hand), id, asked, drives[0]!.id, serial)).toMatchObject({
      ok: true,
    });
    const { evaluation, build } = (await buildView(await desk(hand), id))!;
    expect(evaluation.stops.map((s) => s.code)).toEqual([]);
    expect(build.sheet.image.edition).toBe(1);
    must(await issueRevision(await desk(hand), id, build.version));
    const run = must(
      await startRun(await desk(hand), id, (await buildView(await desk(hand), id))!.build.version),
    );
    const say = async (body: object) => must(await command(await desk(hand), run, `k${Math.random()}`, body));
    const current = async () => {
      const view = (await runView(await desk(hand), run))!;
      return view.plan.steps[view.state.current]!;
    };
    while ((await current()).id !== "write-stick") {
      const now = await current();
      const [step, guard] = [now.id, naming(now)];
      await say(
        guard
          ? { kind: "guard", step, typed: guard.drives[0]!.proof }
          : { kind: "as expected", step, words: "file server" },
      );
    }
    const begun = (await runView(await desk(hand), run))!.state.steps.find(
      (_, i, all) => i === all.findIndex((x) => x.state === "current"),
    )!;
    vi.useFakeTimers({ toFake: ["Date"], now: Date.parse(begun.startedAt!) + 60_000 });
    await say({ kind: "as expected", step: "write-stick" });
    vi.useRealTimers();
    const { db } = await database();
    expect((await transferRows.newest(db)).filter((t) => t.through === "RED-0042")).toMatchObject([
      { way: "stick", bytes: 240e6, seconds: 60, where: expect.stringMatching(/^tho-b, Thornhope, B-/) },
    ]);
    expect((await registerLine(await desk(hand), "RED-0042"))?.entry).toMatchObject({
      written: "as the image",
      scheme: null,
      carries: { imageId: image, name: "Small", compared: false },
    });
    await say({ kind: "as expected", step: "read-back" });
    expect((await registerLine(await desk(hand), "RED-0042"))?.entry.carries?.compared).toBe(true);
    const plan = (await buildView(await desk(hand), id))!.ways!.plans.find((p) => p.way === "stick")!;
    expect(plan.figure.inputs[1]).toMatchObject({
      source: "measured",
      value: expect.stringContaining("4.00 MB/s"),
    });
    expect((await exportAll()).transfers.map((t) => t.through)).toContain("RED-0042");
  });
});

it("profiles of a database from before there were editions become their first", async () => {
  const old = join(folder, "old-migrations");
  cpSync("src/db/migrations", old, { recursive: true });
  const journal = JSON.parse(readFileSync(join(old, "meta/_journal.json"), "utf8")) as { entries: unknown[] };
  writeFileSync(
    join(old, "meta/_journal.json"),
    JSON.stringify({ ...journal, entries: journal.entries.slice(0, 1) }),
  );
  const url = `file:${folder}/old.db`;
  const before = await openDatabase(url, undefined, old);
  await before.db.run(
    "INSERT INTO profiles (key, version, name, yaml, updated_at) VALUES ('k', '1', 'K', 'text', '2026-01-01T00:00:00Z')",
  );
  const after = await openDatabase(url, undefined, "src/db/migrations");
  expect(await profileRows.all(after.db)).toEqual([
    {
      key: "k",
      version: "1",
      edition: 1,
      name: "K",
      by: "",
      updatedAt: "2026-01-01T00:00:00Z",
      yaml: "text",
    },
  ]);
});

it("the corpus used here is the one whose facts are known", () => {
  expect(bootTruth["p04-both-hybrid-gpt.iso"]?.size).toBe(3_145_728);
});
