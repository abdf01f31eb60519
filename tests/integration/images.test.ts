import { createHash } from "node:crypto";
import { readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import { createBuild, buildView } from "@/server/builds";
import { saveEdits } from "@/server/sheet-acts";
import { createMachine } from "@/server/imports";
import { imageView, listImages, saveComputed, createImage, saveInside, takeFromList } from "@/server/images";
import { addShippedProfiles, listProfiles, profileView } from "@/server/profiles";
import { createSite } from "@/server/sites";
import { bootTruth, corpusFile, inspectFile } from "../support/corpus";
import { ownDatabase } from "../support/database";
import { bundleOf, capture } from "../support/formats";
import { desk } from "../support/desk";
import { IMAGE } from "@/server/written";
import { write } from "../support/written";

const hand = "M. Arkle";

ownDatabase();
const by = "M. Arkle";
const must = <T>(answer: { ok: true; value: T } | { ok: false; problems: { message: string }[] }): T => {
  if (!answer.ok) throw new Error(answer.problems.map((p) => p.message).join("; "));
  return answer.value;
};
const refusal = (answer: { ok: boolean; problems?: { message: string }[] }): string =>
  answer.ok ? "" : (answer.problems ?? []).map((p) => p.message).join("; ");

const TYPED = {
  name: "Lowland Server",
  version: "7.4",
  profile: "lowland-server",
  architecture: "x86_64",
  sizeBytes: 3_145_728,
  fileName: "p04-both-hybrid-gpt.iso",
  published: null,
  publishedFrom: "",
  bootModes: ["uefi"],
  supportEnds: null,
  notes: "",
};

/** What the browser would send for a file of the corpus: what was found inside, and its SHA-256. */
function read(file: string) {
  const { value, bytesRead } = inspectFile(corpusFile(file));
  return {
    found: { ...value, bytesRead },
    sha256: createHash("sha256")
      .update(readFileSync(corpusFile(file)))
      .digest("hex"),
  };
}

describe("an image", () => {
  let id = "";
  const view = async () => (await imageView(await desk(hand), id))!;

  it("is added as typed; a field that is wrong is named and nothing is kept", async () => {
    await addShippedProfiles(await desk(hand));
    expect(refusal(await createImage(await desk(hand), { ...TYPED, name: "" }))).toMatch(/^name: /);
    expect(await listImages(await desk(hand))).toEqual([]);
    id = must(await createImage(await desk(hand), TYPED));
    expect((await view()).profile?.name).toBe("Lowland Server");
    expect((await listImages(await desk(hand))).map((i) => [i.id, i.builds])).toEqual([[id, []]]);
  });

  it("refuses a save on an older version and what an inspector did not finish", async () => {
    expect(must(await write(await desk(hand), IMAGE, id, 1, { notes: "from the shelf" }))).toBe(2);
    expect(refusal(await write(await desk(hand), IMAGE, id, 1, { notes: "other" }))).toContain(
      "Someone else saved this meanwhile",
    );
    expect((await view()).image.notes).toBe("from the shelf");
    expect(refusal(await saveInside(await desk(hand), id, "x.iso", { size: 1 }))).toContain("incomplete");
    expect(
      refusal(await saveInside(await desk(hand), "i-nowhere", "x.iso", read(TYPED.fileName).found)),
    ).toContain("no longer exists");
  });

  it("keeps what was found inside beside what was typed, through a later save", async () => {
    const { found } = read(TYPED.fileName);
    must(await saveInside(await desk(hand), id, TYPED.fileName, found));
    const { image, version } = await view();
    expect(image.inside).toMatchObject({ fileName: TYPED.fileName, by });
    expect(image.inside?.found.volumeId).toBe(bootTruth[TYPED.fileName]?.volume_id);
    expect(image.inside?.found.verdict.stick.x64.answer).toBe("boots");
    must(await write(await desk(hand), IMAGE, id, version, { name: "Lowland Server, copy" }));
    expect((await view()).image.inside?.found.verdict.stick.x64.answer).toBe("boots");
  });

  it("takes its published checksum out of a list by the file's name, or by the value that was computed", async () => {
    const { sha256 } = read(TYPED.fileName);
    const list = `${"0".repeat(64)}  other.iso\n${sha256}  ./images/${TYPED.fileName}\n`;
    expect(refusal(await takeFromList(await desk(hand), id, `${"0".repeat(64)}  other.iso\n`, ""))).toContain(
      "other.iso",
    );
    expect(refusal(await takeFromList(await desk(hand), id, "nothing of the kind", ""))).not.toBe("");
    expect(must(await takeFromList(await desk(hand), id, list, "the download page"))).toMatchObject({
      by: "name",
      algorithm: "sha256",
      signed: false,
    });
    expect((await view()).image).toMatchObject({
      published: { algorithm: "sha256", value: sha256 },
      publishedFrom: "the download page",
    });
    must(await saveComputed(await desk(hand), id, { algorithm: "sha256", value: sha256 }));
    const renamed = list.replaceAll(TYPED.fileName, "renamed.iso");
    expect(must(await takeFromList(await desk(hand), id, renamed, ""))).toMatchObject({ by: "value" });
    expect((await view()).image.publishedFrom).toBe("the download page");
  });
});

describe("a build with an image", () => {
  it("has the findings of the file: cut off, another size, starts in no mode that is planned", async () => {
    const site = must(await createSite(await desk(hand), "Works"));
    const text = bundleOf("big-1", {
      lsblk: capture("server-uefi-2socket", "lsblk.json"),
      dmidecode: capture("server-uefi-2socket", "dmidecode.txt"),
    });
    const machine = must(await createMachine(await desk(hand), site, "big-1", [{ name: "b.txt", text }]));
    const image = must(await createImage(await desk(hand), TYPED));
    const build = await createBuild(await desk(hand), machine);
    const rules = async (): Promise<string[]> => {
      const { evaluation } = (await buildView(await desk(hand), build))!;
      return evaluation.findings.map((f) => f.code).filter((r) => /^(image|boot)\./.test(r));
    };
    const before = (await buildView(await desk(hand), build))!.build.version;
    const edited = await saveEdits(await desk(hand), build, before, [
      { path: "image.id", before: null, after: image },
      { path: "boot.mode", before: null, after: "uefi" },
      { path: "image.way", before: "virtual media", after: "stick" },
    ]);
    expect(edited.ok).toBe(true);
    expect(await rules()).toContain("image.not-inspected");

    must(await saveInside(await desk(hand), image, "p09.iso", read("p09-truncated-hybrid.iso").found));
    expect(await rules()).toEqual(expect.arrayContaining(["image.damaged", "image.size-differs"]));
    expect(await rules()).not.toContain("image.not-inspected");

    must(await saveInside(await desk(hand), image, "p01.iso", read("p01-bios-eltorito.iso").found));
    expect(await rules()).toContain("boot.inside");

    must(await saveInside(await desk(hand), image, TYPED.fileName, read(TYPED.fileName).found));
    expect(await rules()).not.toContain("boot.inside");
    expect(await rules()).not.toContain("image.damaged");
    expect((await imageView(await desk(hand), image))!.builds.map((b) => b.id)).toEqual([build]);
  });
});

it("shows each shipped profile by family and version, and none that is not there", async () => {
  const profiles = await listProfiles(await desk(hand));
  const names = profiles.map((p) => `${p.key} ${p.version}`);
  expect(names).toHaveLength(11);
  expect(names).toEqual(
    expect.arrayContaining(["cairn-hypervisor 9", "cairn-hypervisor 6", "cistern-nas 9"]),
  );
  for (const { key, version, yaml } of profiles)
    expect((await profileView(await desk(hand), key, version))?.yaml).toBe(yaml);
  expect(await profileView(await desk(hand), "lowland-server", "99")).toBeNull();
});
