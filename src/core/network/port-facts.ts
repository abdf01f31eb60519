import type { Facts, Port } from "../machine";
import { linkLocalAddress } from "./eui64";
import {
  NAME_CONDITIONS,
  predictPortNames,
  unreadBefore,
  type NameCondition,
  type PortAt,
  type PortName,
} from "./port-names";

/** A name that a system with predictable names gave a port: what it was made of can be read from it. */
const READ =
  /^(?:en|wl)(?:o(?<onboard>\d+)|(?:P\d+)?(?:s(?<slot>\d+)|(?<path>p\d+s\d+))(?<fn>f\d)?|(?<mac>x[\da-f]{12}))(?:n(?<portName>\w+)|d\d+)?$/;

type ReadName = Partial<Record<"onboard" | "slot" | "path" | "fn" | "mac" | "portName", string>>;

const readName = (name: string): ReadName[] => {
  const groups = READ.exec(name)?.groups;
  return groups ? [groups] : [];
};

/** What the names that a port has had tell of its place. Each undefined where they do not tell it. */
function readNames({ seenAs, otherNames }: Port): Pick<PortAt, "onboard" | "slot" | "isMulti" | "portName"> {
  const read = [seenAs, ...otherNames].flatMap(readName);
  const [own] = readName(seenAs);
  if (read.length === 0) return {};
  // The system takes the first that exists, and lists the others beside it: what stands in neither place does not exist.
  const isListed = otherNames.length > 0;
  const isAfterOnboard = isListed || own?.onboard === undefined;
  const isAfterSlot = isListed || own?.path !== undefined || own?.mac !== undefined;
  const onboard = read.find((n) => n.onboard)?.onboard;
  const slot = read.find((n) => n.slot)?.slot;
  const placed = read.find((n) => n.slot ?? n.path);
  return {
    onboard: onboard ? Number(onboard) : isAfterOnboard ? null : undefined,
    slot: slot ? Number(slot) : isAfterSlot ? null : undefined,
    isMulti: placed && placed.fn !== undefined,
    portName: read.find((n) => n.portName)?.portName ?? null,
  };
}

const ORDER = ["onboard", "slot", "path", "mac"] as const;

/**
 * The names that a port of no known place has now, or has beside it, in the order in which a system takes them: the port of a
 * virtual machine sits on a bus of its own, and is named by the place of what that hangs on.
 */
function namesAsRead({ seenAs, otherNames }: Port): PortName[] {
  const read = [seenAs, ...otherNames].flatMap((name) =>
    readName(name).flatMap((parts) =>
      ORDER.filter((by) => parts[by] !== undefined).map((by) => ({ name, by, when: [], isTooLong: false })),
    ),
  );
  return ORDER.flatMap((by) => read.find((n) => n.by === by) ?? []);
}

/** Whether the device of a port has several functions; undefined where only the first of them was ever listed. */
function isMulti(pci: string | null, facts: Pick<Facts, "pci">): boolean | undefined {
  const device = pci?.replace(/\.\d$/, "");
  return facts.pci.some((p) => p.slot !== pci && p.slot.replace(/\.\d$/, "") === device) || undefined;
}

/**
 * The names by which a Linux with predictable names may call a port of this machine, in the order in which it takes them,
 * and what was not read and would go before.
 */
export function portNamesOf(
  facts: Pick<Facts, "pci">,
  port: Port,
): { names: PortName[]; unread: NameCondition[] } {
  const read = readNames(port);
  const at: PortAt = {
    ...{ kind: port.kind, mac: port.mac, pci: port.pci, ...read },
    isMulti: isMulti(port.pci, facts) ?? read.isMulti,
  };
  const names = predictPortNames(at);
  const own = port.pci === null ? namesAsRead(port) : [];
  const others = names.filter((n) => own.every(({ by }) => by !== n.by));
  const inOrder = ORDER.flatMap((by) => [...own, ...others].filter((n) => n.by === by));
  const isPlaced = port.pci !== null || own.some(({ by }) => by === "path");
  return { names: inOrder, unread: [...unreadBefore(at), ...(isPlaced ? [] : (["place"] as const))] };
}

/** Those names in one line: the one that is taken where all was read, else each with what would have to be so. */
export function portNameWords({ names, unread }: ReturnType<typeof portNamesOf>): string {
  const when = (conditions: readonly NameCondition[]): string =>
    conditions.map((c) => NAME_CONDITIONS[c]).join(" and ");
  const usable = names.filter((n) => !n.isTooLong);
  const [first] = usable;
  if (!first) return "unknown: neither location nor MAC gives a name";
  const others = unread.map((c) => `another, if ${when([c])}`);
  if (first.when.length === 0) return [first.name, ...others].join("; or ");
  // Of one kind there are as many as may be so; what comes after them is not needed any more.
  const likely = usable.filter((n) => n.by === first.by);
  return [...likely.map((n) => `${n.name}, if ${when(n.when)}`), ...others].join("; or ");
}

/** What is to be expected of a port before anybody has decided anything about it. */
export interface PortOutlook {
  /** What a Linux with predictable names will call it, in words. */
  calledBy: string;
  /** The address that it gives itself; null where its MAC is none. */
  ownAddress: string | null;
}

/** The outlook of each port of a machine, by its MAC. */
export const portOutlooks = (facts: Pick<Facts, "pci" | "ports">): Record<string, PortOutlook> =>
  Object.fromEntries(
    facts.ports.map((port) => [
      port.mac,
      { calledBy: portNameWords(portNamesOf(facts, port)), ownAddress: linkLocalAddress(port.mac) },
    ]),
  );
