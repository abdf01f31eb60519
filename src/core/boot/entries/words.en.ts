import type { BootDevice } from "../resolve";
import type { EntryView, Owner } from "./view";

interface Known {
  owner: Owner;
  device: BootDevice | null;
  twins: EntryView["twins"];
}

/** What would be lost if an entry were deleted. */
export function losesWords({ owner, device, twins }: Known): string {
  if (twins.length > 0) return `nothing while ${twins.join(" and ")} stands: it leads to the same`;
  switch (owner) {
    case "the running system":
      return `${device?.system?.name ?? "the running system"} would not be started any more`;
    case "another system":
      return `what stands on ${device?.name ?? "its drive"} would not be started any more`;
    case "the network":
      return `starting from the network by ${device?.name ?? "this port"}, until the set-up pages bring it back`;
    case "a medium":
    case "the firmware":
      return "nothing: the firmware makes it again";
    case "nobody: stale":
      return "nothing";
    case "not known":
      return "not known: look first";
  }
}

/** What the plan makes of an entry. */
export function afterWords({ owner, device }: Known, target: string | null, isFresh: boolean): string {
  if (owner === "nobody: stale") return "stays, and costs a message at each start";
  const onTarget = device !== null && device.id === target;
  if (onTarget && isFresh && (owner === "the running system" || owner === "another system"))
    return "stale: the installation writes a new table";
  return "stays";
}
