import type { Path } from "../../document";
import { rulesOver, type Check } from "../../finding";
import type { AnswersGround } from "../ground";
import { ANSWERS_MESSAGES } from "./messages.en";

type At = Path<AnswersGround["sheet"]>;

export type AnswersRule = Check<AnswersGround, At>;
export const rule = rulesOver<AnswersGround, At>()("F", ANSWERS_MESSAGES);
