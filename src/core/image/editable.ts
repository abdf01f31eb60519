import type { Editable } from "../document";
import { imageSchema, type Image } from "./image";

/** What was published about an image; what was measured from its file is no part of it. */
export const publishedSchema = imageSchema.omit({ computed: true, inside: true });
export type Published = Omit<Image, "computed" | "inside">;

/** An image of which nothing is typed yet. */
export const newImage = (profile: string): Published => ({
  ...{
    schemaVersion: 1,
    name: "",
    profile,
    version: "",
    purpose: "installer",
    goesWith: [],
    variant: "full",
  },
  ...{ architecture: "x86_64", fileName: "", sizeBytes: 0, bootModes: ["uefi"], loaderSigned: "unknown" },
  ...{ published: null, publishedFrom: "", supportEnds: null, notes: "" },
});

export const imageEditable: Editable<Image, typeof publishedSchema> = {
  ...{ kind: "image", schema: publishedSchema },
  partOf({ computed: _computed, inside: _inside, ...part }) {
    return part;
  },
  put: ({ computed, inside }, part) => ({ ...part, computed, inside }),
};

/** What people call the fields of an image, by their paths. */
export const IMAGE_NAMES: Readonly<Record<string, string>> = {
  name: "Name",
  profile: "OS profile",
  version: "Version",
  purpose: "Purpose",
  goesWith: "Belongs to",
  variant: "Variant",
  architecture: "Architecture",
  fileName: "File name",
  sizeBytes: "Size in bytes",
  bootModes: "Boot modes",
  loaderSigned: "Secure Boot loader",
  published: "Published checksum",
  "published.algorithm": "Published checksum",
  "published.value": "Published checksum value",
  publishedFrom: "Source",
  supportEnds: "Support ends",
  notes: "Notes",
};
