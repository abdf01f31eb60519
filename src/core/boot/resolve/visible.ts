import { failed, type Tried } from "./attempt";
import type { BootDevice } from "./machine";
import type { Oracle } from "./questions";

const factsOf = (device: BootDevice) => ({ device: device.name });

/** Whether a device is in the machine; where nobody has looked it is taken to be. */
export const isPresent = (device: BootDevice, oracle: Oracle): boolean =>
  device.present ?? oracle.ask("present", true, device.id, factsOf(device));

/** Whether the firmware can see a device that is there; where nobody has looked it is taken to. */
export const isSeen = (device: BootDevice, oracle: Oracle): boolean =>
  device.hidden === "unknown" ? oracle.ask("seen", true, device.id, factsOf(device)) : device.hidden === null;

export const isUsable = (device: BootDevice, oracle: Oracle): boolean =>
  isPresent(device, oracle) && isSeen(device, oracle);

/** Why nothing can be tried on a device; null where it can. */
export function unusable(device: BootDevice, oracle: Oracle): Tried | null {
  if (!isPresent(device, oracle)) return failed("device absent", device);
  return isSeen(device, oracle) ? null : failed("device hidden", device);
}
