import type { Path } from "../../document";
import { rulesOver, type Check } from "../../finding";
import type { NetworkGround } from "../ground";
import { NETWORK_MESSAGES } from "./messages.en";

type At = Path<NetworkGround["sheet"]>;

export type NetworkRule = Check<NetworkGround, At>;
export const rule = rulesOver<NetworkGround, At>()("E", NETWORK_MESSAGES);
