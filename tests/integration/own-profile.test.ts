import { expect, it } from "vitest";
import { createImage, imageView } from "@/server/images";
import { makeMine, previewProfile } from "@/server/own-profile";
import { addShippedProfiles, profileView } from "@/server/profiles";
import { shippedProfile } from "../support/builds";
import { ownDatabase } from "../support/database";
import { desk } from "../support/desk";

ownDatabase();
const hand = "M. Arkle";
const own = { name: "Brook Server", version: "5", recognise: ["brook"] };
const TYPED = {
  ...{
    name: "brook-5",
    version: "5.2",
    profile: "not known yet",
    architecture: "x86_64",
    sizeBytes: 9_000_000,
  },
  ...{ fileName: "brook-5.2.iso", published: null, publishedFrom: "", bootModes: ["uefi"] },
  ...{ supportEnds: null, notes: "" },
};

it("a family of one's own is made once, and takes its image along", async () => {
  const by = await desk(hand);
  await addShippedProfiles(by);
  const image = await createImage(by, TYPED);
  if (!image.ok) throw new Error("no image");
  const made = await makeMine(by, "millrace", "12", own, image.value);
  expect(made).toMatchObject({ ok: true, value: { key: "brook-server", version: "5", edition: 1 } });
  expect(await profileView(by, "brook-server", "5")).toMatchObject({
    by: hand,
    profile: { name: "Brook Server" },
  });
  expect(await imageView(by, image.value)).toMatchObject({
    image: { profile: "brook-server", version: "5.2" },
    profile: { name: "Brook Server" },
  });
  const again = await makeMine(by, "millrace", "12", own, null);
  expect(again).toMatchObject({ ok: false, problems: [{ message: /is a profile Brook Server 5 already/ }] });
  expect(await makeMine(by, "no-such", "1", own, null)).toMatchObject({ ok: false });
});

it("previews the steps that fields would make, or what a sheet would lack by each mistake, and keeps nothing", async () => {
  const by = await desk(hand);
  const millrace = shippedProfile("millrace-12");
  const sound = await previewProfile(by, millrace);
  expect(sound.problems).toEqual([]);
  expect(sound.steps.filter((s) => s.isGuard).length).toBeGreaterThan(0);
  const wrong = await previewProfile(by, { ...millrace, screens: [], restart: { likely: -1, late: 5 } });
  expect(wrong.steps).toEqual([]);
  expect(wrong.problems.map((p) => p.lacks)).toEqual(
    expect.arrayContaining([expect.stringMatching(/steps of the installer/), "the restart time"]),
  );
  expect(await profileView(by, "millrace", "12")).toMatchObject({ edition: 1 });
});
