"use client";

import { IMAGE_NAMES, type Published } from "@/core/image";
import { writtenContext } from "../draft/written-context";

/** What was published about an image, as its page writes it. */
export const {
  Draft: ImageDraft,
  Foot: ImageFoot,
  use: useImage,
} = writtenContext<Published>("image", IMAGE_NAMES);
