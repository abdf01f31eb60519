import { describe, expect, expectTypeOf, it } from "vitest";
import { SITE_NAMES, siteSchema, type Site } from "@/core/site";
import { IMAGE_NAMES, newImage, publishedSchema } from "@/core/image";
import { emptyMachine, machineEditable, WRITTEN_NAMES } from "@/core/machine";
import { bound } from "./bound";
import { placed } from "./placed";

describe("a problem at its place", () => {
  it.each([
    ["name: a site needs a name", "Name: a site needs a name"],
    ["segments.0.gateway: outside", "Networks, no. 1, gateway: outside"],
    ["link.bitsPerSecond: too small: 0", "Link speed of remote consoles: too small: 0"],
    ["notes: two\nlines", "Notes: two\nlines"],
    ["nowhere.at: all", "nowhere.at: all"],
    ["Somebody saved this in between.", "Somebody saved this in between."],
  ])("%j is told as %j", (message, said) =>
    expect(placed({ message }, SITE_NAMES)).toEqual({ message: said }),
  );

  // A clash or a refusal names a field: none may be called by its path.
  it.each<[string, object, Readonly<Record<string, string>>]>([
    ["site", siteSchema.parse({ schemaVersion: 2, name: "x" }), SITE_NAMES],
    [
      "image",
      publishedSchema.parse({ ...newImage("p"), name: "n", version: "1", sizeBytes: 1 }),
      IMAGE_NAMES,
    ],
    ["machine", machineEditable.partOf(emptyMachine()), WRITTEN_NAMES],
  ])("every field of a %s has a name that people call it by", (_, document, names) => {
    const paths = (value: unknown, path: string): string[] =>
      typeof value === "object" && value !== null && !Array.isArray(value)
        ? Object.entries(value).flatMap(([key, inner]) => paths(inner, path ? `${path}.${key}` : key))
        : [path];
    const unnamed = paths(document, "").filter((p) => p !== "schemaVersion" && !names[p]);
    expect(unnamed).toEqual([]);
  });
});

describe("fields that are bound by their paths", () => {
  const document = siteSchema.parse({
    schemaVersion: 2,
    name: "Works",
    segments: [{ id: "s", name: "mgmt", purpose: "management", prefix: "10.61.10.0/24" }],
  });
  const typed: Readonly<Record<string, unknown>>[] = [];
  const field = bound<Site>({ document, type: (changes) => typed.push(changes) });

  it("show what stands at the path, also in a row of a list, and type there", () => {
    expect(field("segments.0.name", "Network")).toMatchObject({ path: "segments.0.name", value: "mgmt" });
    field("segments.0.vlan", "VLAN").onChange(7);
    field("addressSchool", "Addresses").onChange("reserved");
    expect(typed).toEqual([{ "segments.0.vlan": 7 }, { addressSchool: "reserved" }]);
  });

  it("compile for paths and values that a document has", () => {
    expectTypeOf(field("segments.0.vlan", "VLAN").value).toEqualTypeOf<number | null>();
    expectTypeOf(field("link", "Link").value).toEqualTypeOf<Site["link"]>();
    // @ts-expect-error a site has no colour
    field("colour", "Colour");
    // @ts-expect-error nor has a segment
    field("segments.0.colour", "Colour");
    // @ts-expect-error there is no such school
    field("addressSchool", "Addresses").onChange("old");
  });
});
