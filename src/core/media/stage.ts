import { term } from "../text";
import type { Path } from "../document";
import { IMAGE_CHECKS, IMAGE_MESSAGES } from "../image";
import { open, said, type Stage } from "../stage";
import { MEDIA_CHECKS, MEDIA_MESSAGES } from "./checks";
import { stickOf, wayOf, type MediaGround } from "./ground";
import { imageSlice, type ImageSlice } from "./slice";
import { mediumWords } from "./ways";

function summary(ground: MediaGround) {
  const { image, road, sheet, fromMedia } = ground;
  if (!image) return open("Choose the image and its boot source");
  const way = wayOf(ground);
  const media = way === "stick" ? stickOf(ground).name || "USB stick (no name)" : mediumWords[way];
  const [first, ...more] = road?.legs ?? [];
  return said(
    [
      sheet.image.road === "fresh" ? image.name : `${term(sheet.image.road)} to ${image.name}`,
      fromMedia ? `by ${media}` : "in the running system",
      ...(first && more.length > 0 ? [`via ${first.profile.name} ${first.version}`] : []),
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
    "image.edition": "profile revision",
    "image.road": "road",
    "image.way": "boot source",
    "image.stick.key": "USB stick of the inventory",
    "image.stick.ready": "USB stick used as it is",
    "image.stick.name": "USB stick name",
    "image.stick.sizeBytes": "USB stick size",
    "image.stick.written": "write mode of the USB stick",
    "image.stick.holds": "contents of the USB stick",
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
