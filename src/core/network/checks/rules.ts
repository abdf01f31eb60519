import { ADDRESS_CHECKS } from "./address";
import { INTERFACE_CHECKS } from "./interfaces";
import type { NetworkRule } from "./rule";
import { SERVICE_CHECKS } from "./services";
import { WIRING_CHECKS } from "./wiring";

/** Rules of stage E: the address, what stands on the ports, the cables and switches, and who may reach what. */
export const NETWORK_CHECKS: readonly NetworkRule[] = [
  ...ADDRESS_CHECKS,
  ...INTERFACE_CHECKS,
  ...WIRING_CHECKS,
  ...SERVICE_CHECKS,
];
