import { expect, it } from "vitest";
import type { BuildView } from "@/core/sheet";
import { nextThing } from "./next-thing";

interface Stand {
  machine?: boolean;
  image?: boolean;
  profile?: boolean;
  target?: string;
  stops?: { label: string; title: string }[];
  issued?: boolean;
  run?: boolean;
}

/** A view as far as the line looks at it. */
const view = ({ machine, image, profile, target, stops = [], issued, run }: Stand) =>
  ({
    build: {
      ...{ id: "b1", version: 4, revision: issued ? "A" : null, revisionVersion: issued ? 4 : null },
      sheet: { storage: { target: target ?? null } },
    },
    context: {
      machine: machine ? { document: { facts: { drives: [{ id: "S1" }] } } } : null,
      image: image ? {} : null,
      profile: profile ? {} : null,
    },
    evaluation: { stops },
    run: run ? { id: "r1", endedAt: null } : null,
  }) as unknown as BuildView;

const ALL: Stand = { machine: true, image: true, profile: true, target: "S1" };

it.each<[string, Stand, string | null]>([
  ["nothing", {}, "#zone-A"],
  ["a machine", { machine: true }, "#zone-B"],
  ["an image of a family that is not known", { machine: true, image: true }, "#zone-B"],
  ["all but the drive", { ...ALL, target: undefined }, "#zone-D"],
  ["a stop", { ...ALL, stops: [{ label: "E1", title: "Address missing" }] }, "#E1"],
  ["no blockers", ALL, "/builds/b1/card"],
  ["an issued revision", { ...ALL, issued: true }, "/builds/b1/card"],
  ["a run", { ...ALL, run: true }, null],
])("with %s it leads to what comes next", (_, stand, href) => {
  expect(nextThing(view(stand))?.href ?? null).toBe(href);
});

it("names the first stop, and how many there are besides", () => {
  const stop = (label: string) => ({ label, title: "Address missing" });
  const words = (...labels: string[]) => nextThing(view({ ...ALL, stops: labels.map(stop) }))?.words;
  expect(words("E1")).toBe("E1, Address missing: the only blocker.");
  expect(words("E1", "F1")).toBe("E1, Address missing: and 1 more blocker.");
  expect(words("E1", "F1", "F2")).toBe("E1, Address missing: and 2 more blockers.");
});
