import { PLACEHOLDERS, type Values } from "../image";
import type { Plan } from "./plan";
import { STAGES } from "./stages";

/** Every value that a profile's texts may name, each from the stage that decides it; "" when open. */
export const valuesOf = (plan: Plan): Values =>
  Object.assign(
    Object.fromEntries(PLACEHOLDERS.map((name) => [name, ""])),
    ...STAGES.map((stage) => stage.values(plan)),
  );
