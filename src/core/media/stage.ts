import type { Path } from "../document";
import { IMAGE_CHECKS, IMAGE_MESSAGES } from "../image";
import { open, said, type Stage } from "../stage";
import { MEDIA_CHECKS, MEDIA_MESSAGES } from "./checks";
import { stickOf, wayOf, type MediaGround } from "./ground";
import { imageSlice, type ImageSlice } from "./slice";
import { mediumWords } from "./ways";

function summary(ground: MediaGround) {
  const { image, road, sheet, fromMedia } = ground;
  if (!image) return open("Which image, and how does it get there?");
  const way = wayOf(ground);
  const media = way === "stick" ? stickOf(ground).name || "a stick (not named)" : mediumWords[way];
  const [first, ...more] = road?.legs ?? [];
  return said(
    [
      sheet.image.road === "fresh" ? image.name : `${sheet.image.road} to ${image.name}`,
      fromMedia ? `by ${media}` : "in the running system",
      ...(first && more.length > 0 ? [`over ${first.profile.name} ${first.version}`] : []),
    ].join(", "),
  );
}

/** Stage B: the image, the road to it, and the way by which it gets to the machine. */
export const mediaStage = {
  zone: "B",
  title: "Image",
  slice: { image: imageSlice.prefault({}) },
  names: {
    "image.id": "image",
    "image.edition": "edition of the profile",
    "image.road": "road",
    "image.way": "way to the machine",
    "image.stick.key": "stick of the register",
    "image.stick.ready": "stick used as it is",
    "image.stick.name": "stick name",
    "image.stick.sizeBytes": "stick size",
    "image.stick.written": "stick written",
    "image.stick.holds": "stick holds",
  },
  checks: [...IMAGE_CHECKS, ...MEDIA_CHECKS],
  messages: { ...IMAGE_MESSAGES, ...MEDIA_MESSAGES },
  summary,
  values: ({ image }) => ({
    "image.file": image?.fileName || image?.name || "",
    "image.name": image?.name ?? "",
    "image.version": image?.version ?? "",
  }),
} satisfies Stage<MediaGround, Path<{ image: ImageSlice }>>;
