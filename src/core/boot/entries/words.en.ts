import type { BootDevice } from "../resolve";
import type { EntryView, Owner } from "./view";

interface Known {
  owner: Owner;
  device: BootDevice | null;
  twins: EntryView["twins"];
}

/** What would be lost if an entry were deleted. */
export function losesWords({ owner, device, twins }: Known): string {
  if (twins.length > 0) return `none while ${twins.join(" and ")} exists: it boots the same`;
  switch (owner) {
    case "the running system":
      return `${device?.system?.name ?? "the running system"} no longer boots`;
    case "another system":
      return `the system on ${device?.name ?? "its drive"} no longer boots`;
    case "the network":
      return `no network boot through ${device?.name ?? "this port"} until it is enabled again in the firmware setup`;
    case "a medium":
    case "the firmware":
      return "none: the firmware creates it again";
    case "nobody: stale":
      return "nothing";
    case "not known":
      return "unknown: check first";
  }
}

/** What the plan makes of an entry. */
export function afterWords({ owner, device }: Known, target: string | null, isFresh: boolean): string {
  if (owner === "nobody: stale") return "none, but a leftover entry shows a message at each boot";
  const onTarget = device !== null && device.id === target;
  if (onTarget && isFresh && (owner === "the running system" || owner === "another system"))
    return "stale: the installation writes a new partition table";
  return "stays";
}
