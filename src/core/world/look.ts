import { driveLook } from "../machine";
import type { Sight, SightOf } from "../work";
import type { World } from "./world";

/** What comes of looking for something: what this world does not hold is unknown, and never "seen". */
export type Looked = "seen" | "not seen" | "unknown";

const told = (is: boolean): Looked => (is ? "seen" : "not seen");

/**
 * Looks for a sight. `planned` is the world as it would be without a fault: a screen of an installer is seen where what
 * runs is what should be running.
 */
export function look(world: World, sight: Sight, planned: World): Looked {
  const { running, facts } = world;
  switch (sight.of) {
    case "screen":
      return told(JSON.stringify(running) === JSON.stringify(planned.running));
    case "label":
      return lookAtLabel(world, sight);
    case "drive":
      return facts.drives.some((d) => driveLook(d) === sight.look) ? "seen" : "unknown";
    case "medium":
      return told(lookAtMedium(world, sight));
    case "boot entry":
      return told(world.facts.firmware?.mode === sight.mode && running.of === "medium");
    case "setting":
      return told(world.settings.includes(sight.is));
    case "boot":
      return told(lookAtStart(world, sight));
    case "system":
      return told(running.of === "system" && running.isNew);
    case "output":
    case "hardware":
    case "device":
    case "checksum":
    case "address":
    case "boot service":
    case "acceptance":
    case "statement":
      return "unknown";
  }
}

function lookAtLabel({ facts }: World, { part, reads }: SightOf<"label">): Looked {
  if (part === "name") return "unknown";
  const own = part === "asset tag" ? facts.chassis?.assetTag : facts.chassis?.serial;
  return own ? told(own === reads) : "unknown";
}

function lookAtMedium({ media }: World, { medium, is, holds }: SightOf<"medium">): boolean {
  const own = media.find((m) => m.medium === medium);
  return is === "out" ? !own : own !== undefined && (medium === "network" || own.holds === holds);
}

function lookAtStart({ running }: World, { ends }: SightOf<"boot">): boolean {
  if (ends === "installed system") return running.of === "system" && running.isNew;
  return ends === "installer" ? running.of === "medium" : running.of === "no device";
}
