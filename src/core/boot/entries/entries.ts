import { factsOf } from "../../machine";
import type { BootPlan } from "../ground";
import { nodeOfKind, partitionKey, pathKey } from "../path";
import { deviceMeant, knownOf, mayCarry, type BootDevice, type BootEntry, type Known } from "../resolve";
import { seenMachine } from "../seen";
import type { EntryView, Owner } from "./view";
import { afterWords, losesWords } from "./words.en";

/** Who owns a partition that is named: the system that runs from it, another, or nobody any more. */
function ownerOfPartition(known: Known, entry: BootEntry): Owner {
  const node = nodeOfKind(entry.path, "partition")!;
  const [carrier] = known.carriers.get(partitionKey(node)) ?? [];
  if (carrier) return carrier.device.system?.isSure ? "the running system" : "another system";
  return known.machine.devices.some(mayCarry) ? "not known" : "nobody: stale";
}

function ownerOf(known: Known, entry: BootEntry, device: BootDevice | null): Owner {
  const { path, own } = entry;
  const [head] = path.nodes;
  if (!head || head.kind === "legacy") return "not known";
  if (head.kind === "firmware") return "the firmware";
  if (nodeOfKind(path, "mac")) return device ? "the network" : "nobody: stale";
  if (nodeOfKind(path, "partition")) return ownerOfPartition(known, entry);
  if (device?.removable) return "a medium";
  if (own) return device?.present === true ? "the firmware" : "nobody: stale";
  if (device?.system?.isSure) return "the running system";
  return device?.present === true ? "another system" : "not known";
}

/** The entries of the machine's firmware with their owners, in the order in which they are tried; then those not in it. */
export function bootEntries(plan: BootPlan, marks: readonly string[]): EntryView[] {
  const facts = factsOf(plan);
  if (!facts || facts.firmware?.mode === "legacy") return [];
  const machine = seenMachine(facts, "uefi", marks);
  if (machine.mode !== "uefi") return [];
  const known = knownOf(machine);
  const order = machine.order ?? [];
  const keys = new Map(machine.entries.map((e) => [e.id, pathKey(e.path)]));
  const isFresh = plan.legs.some((l) => l.kind === "fresh");
  const views = machine.entries.map((entry): EntryView => {
    const device = deviceMeant(known, entry);
    const twins = machine.entries
      .filter((e) => e !== entry && e.path.nodes.length > 0 && keys.get(e.id) === keys.get(entry.id))
      .map((e) => e.id);
    const about = { owner: ownerOf(known, entry, device), device, twins };
    const at = order.indexOf(entry.id);
    return {
      ...{ id: entry.id, label: entry.label, active: entry.active, place: at === -1 ? null : at + 1 },
      ...{ owner: about.owner, device: device?.name ?? null, twins },
      after: afterWords(about, plan.sheet.storage.target, isFresh),
      loses: losesWords(about),
    };
  });
  return views.toSorted((a, b) => (a.place ?? Infinity) - (b.place ?? Infinity) || (a.id < b.id ? -1 : 1));
}
