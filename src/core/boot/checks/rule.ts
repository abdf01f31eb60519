import type { Path } from "../../document";
import { rulesOver, type Check } from "../../finding";
import type { BootGround } from "../ground";
import { BOOT_MESSAGES } from "./messages.en";

type At = Path<BootGround["sheet"]>;

export type BootRule = Check<BootGround, At>;
export const rule = rulesOver<BootGround, At>()("C", BOOT_MESSAGES);
