import type { Path } from "../../document";
import { rulesOver, type Check } from "../../finding";
import type { MediaGround } from "../ground";
import { MEDIA_MESSAGES } from "./messages.en";

type At = Path<MediaGround["sheet"]>;

export type MediaRule = Check<MediaGround, At>;
export const rule = rulesOver<MediaGround, At>()("B", MEDIA_MESSAGES);
