import type { Path } from "../../document";
import { rulesOver, type Check } from "../../finding";
import type { StorageGround } from "../ground";
import { STORAGE_MESSAGES } from "./messages.en";

export type At = Path<StorageGround["sheet"]>;

export type StorageRule = Check<StorageGround, At>;
export const rule = rulesOver<StorageGround, At>()("D", STORAGE_MESSAGES);
