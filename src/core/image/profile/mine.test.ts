import { expect, it } from "vitest";
import { shippedProfile } from "../../../../tests/support/builds";
import {
  draftFamily,
  draftImage,
  lackedBy,
  lacksOf,
  ownProfile,
  parseProfileYaml,
  renderProfileYaml,
  slugOf,
} from "..";

const millrace = shippedProfile("millrace-12");
const own = { name: "Brook Server", version: "5", recognise: ["brook"] };

it("takes along what is alike, and leaves behind what holds for the other family only", () => {
  const made = ownProfile(millrace, own);
  expect(made).toMatchObject({
    value: {
      profile: "brook-server",
      name: "Brook Server",
      version: "5",
      upgrades: [],
      support: { ends: null },
    },
  });
  if (!made.ok) return;
  expect(made.value.screens).toEqual(millrace.screens);
  expect(made.value.identify).toEqual({ id: "brook-server", version: "5", marks: [] });
  // It is a profile like any other: its text reads back as it is.
  expect(parseProfileYaml(renderProfileYaml(made.value))).toMatchObject({ ok: true, value: made.value });
});

it.each([
  ["no name", { ...own, name: " – " }, /Enter a name with a letter or a digit/],
  ["no version", { ...own, version: " " }, /Enter a version/],
  ["no word", { ...own, recognise: [" "] }, /at least one word/],
  ["what is there already", { ...own, name: "millrace", version: "12" }, /Millrace 12 exists already/],
])("refuses %s", (_, given, why) => {
  const made = ownProfile(millrace, given);
  expect(made.ok ? "" : made.problems[0]?.message).toMatch(why);
});

it("makes a key of a name in any writing", () => {
  expect(["Brook Server", "Ísland 3.1", "--a--b--", "操作"].map(slugOf)).toEqual([
    "brook-server",
    "island-3-1",
    "a-b",
    "",
  ]);
});

it("begins a family by the words of its image, and the image is recognised by it then", () => {
  const begun = draftFamily({ fileName: "brook-server-5.2-amd64-dvd.iso", version: "5.2" });
  expect(begun).toEqual({ name: "Brook", version: "5", recognise: ["brook"] });
  expect(draftFamily({ fileName: "x86_64.iso", version: "not known yet" })).toEqual({
    name: "",
    version: "",
    recognise: [],
  });
  const made = ownProfile(millrace, begun);
  const found = { sizeBytes: 9, volumeId: "", verdict: { optical: {}, stick: {} } } as never;
  const cells = { legacy: { answer: "boots" }, x64: { answer: "boots" }, aa64: { answer: "does not" } };
  const inside = { ...(found as object), verdict: { optical: cells, stick: cells } } as never;
  if (!made.ok) throw new Error("not made");
  expect(draftImage("brook-5.3.iso", inside, [millrace, made.value])).toMatchObject({
    profile: "brook",
    version: "5.3",
  });
});

it("says what a sheet will lack: of what is left open, and by a mistake", () => {
  expect(lacksOf(millrace)).toEqual([]);
  const made = ownProfile(millrace, own);
  expect(made.ok && lacksOf(made.value)).toEqual([
    "all installation methods except a fresh installation",
    "the end of support",
  ]);
  expect(lacksOf({ ...millrace, partitioning: null, sets: null })).toHaveLength(2);
  expect(lackedBy("screens.3.late")).toMatch(/^the steps of the installer/);
  expect(lackedBy("family")).toBeNull();
});
