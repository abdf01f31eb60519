import type { Path } from "../../document";
import { rulesOver, type Check } from "../../finding";
import type { ImageGround } from "../ground";
import { IMAGE_MESSAGES } from "./messages.en";

type At = Path<ImageGround["sheet"]>;

export type ImageRule = Check<ImageGround, At>;
export const rule = rulesOver<ImageGround, At>()("B", IMAGE_MESSAGES);
