import type { Path } from "../../document";
import { rulesOver, type Check } from "../../finding";
import type { FitGround } from "../ground";
import { FIT_MESSAGES } from "./messages.en";

type At = Path<FitGround["sheet"]>;

export type FitRule = Check<FitGround, At>;
export const rule = rulesOver<FitGround, At>()("A", FIT_MESSAGES);
