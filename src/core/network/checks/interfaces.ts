import { evidence, hit, type Hit } from "../../finding";
import { factsOf, type Port } from "../../machine";
import { addressKey, contains, edgeOf, inRange, isAddress } from "../address";
import type { NetworkGround } from "../ground";
import {
  circles,
  isInterfaceName,
  isMac,
  portsBelow,
  stackBelow,
  type Interface,
  type PortGroup,
} from "../interface";
import { ownersOf } from "../owners";
import type { Segment } from "../segment";
import { rule, type NetworkRule } from "./rule";

const AT = "network.interfaces" as const;

const portNamed = (ground: NetworkGround, mac: string): Port | null =>
  factsOf(ground)?.ports.find((p) => p.mac === mac) ?? null;

/** What is wrong with the name of an interface or with what it stands on; null when nothing is. */
function faultOf(ground: NetworkGround, one: Interface, round: readonly string[]) {
  const { interfaces } = ground.sheet.network;
  const ports = factsOf(ground)?.ports;
  const lost = one.on.find((on) =>
    isMac(on)
      ? ports !== undefined && !ports.some((p) => p.mac === on)
      : !interfaces.some((i) => i.name === on),
  );
  if (one.kind !== "virtual switch" && !isInterfaceName(one.name)) return { state: "name" } as const;
  if (interfaces.filter((i) => i.name === one.name).length > 1) return { state: "twice" } as const;
  if (round.includes(one.name)) return { state: "circle" } as const;
  if (lost !== undefined) return { state: "gone", on: lost } as const;
  if (one.on.length === 0 && one.kind !== "bridge" && one.kind !== "virtual switch")
    return { state: "nothing" } as const;
  if (one.kind === "vlan" && one.vlan === null) return { state: "no vlan" } as const;
  const wanted = [one.segment, ...(one.kind === "virtual switch" ? one.groups.map((g) => g.segment) : [])];
  const segments = ground.site?.segments;
  const left = wanted.find((id) => id !== null && segments && !segments.some((s) => s.id === id));
  return left === undefined ? null : ({ state: "no network" } as const);
}

/** The interfaces that hold a port or another interface as their own: a VLAN stands on it and leaves it free for others. */
const holders = (interfaces: readonly Interface[], on: string): Interface[] =>
  interfaces.filter((i) => i.kind !== "vlan" && i.on.includes(on));

/** Why an address cannot stand on an interface beside the management address; null when it can. */
function addressFault(ground: NetworkGround, address: string, segment: Segment | null) {
  if (!isAddress(address)) return { state: "not one" } as const;
  if (!segment) return { state: "no segment" } as const;
  const { prefix } = segment;
  if (!contains(prefix, address)) return { state: "outside", prefix } as const;
  if (edgeOf(prefix, address)) return { state: "edge", prefix } as const;
  if (addressKey(address) === addressKey(ground.sheet.network.address)) return { state: "own" } as const;
  if (segment.dhcp.some((range) => inRange(address, range))) return { state: "lent", prefix } as const;
  const [owner] = ownersOf(ground, address, segment);
  return owner === undefined ? null : ({ state: "taken", owner } as const);
}

/** On a virtual switch an address stands on the group for management; null for an interface of another kind. */
const managementGroup = (one: Interface | undefined): PortGroup | "none" | null =>
  one?.kind === "virtual switch" ? (one.groups.find((g) => g.purpose === "management") ?? "none") : null;

/** Rules about what stands on the ports: bonds, VLANs, bridges, virtual switches. */
export const INTERFACE_CHECKS: readonly NetworkRule[] = [
  rule("network.interface", (ground) => {
    const { interfaces } = ground.sheet.network;
    const round = circles(interfaces);
    return interfaces.flatMap((one, i) => {
      const fault = faultOf(ground, one, round);
      return fault
        ? {
            ...hit(
              "stop",
              AT,
              { name: one.name || "unnamed", kind: one.kind, ...fault },
              evidence(one.kind, one.name || "no name", "this sheet"),
              evidence("parent interface", one.on.join(", ") || "nothing", "this sheet"),
            ),
            subject: `${i}`,
          }
        : [];
    });
  }),

  rule("network.carrier", ({ sheet }) => {
    const { carrier, interfaces, port } = sheet.network;
    const over = carrier === null ? [] : portsBelow(interfaces, carrier);
    const masters =
      carrier === null && port ? holders(interfaces, port).filter((i) => i.kind !== "port") : [];
    const group = managementGroup(interfaces.find((i) => i.name === carrier));
    const state =
      carrier !== null && !interfaces.some((i) => i.name === carrier)
        ? ({ state: "gone", carrier } as const)
        : carrier !== null && port !== null && !over.includes(port)
          ? ({ state: "elsewhere", carrier, port } as const)
          : masters[0]
            ? ({ state: "held", master: masters[0].name } as const)
            : group === "none" && carrier !== null
              ? ({ state: "no group", carrier } as const)
              : group !== null &&
                  group !== "none" &&
                  group.segment !== null &&
                  group.segment !== sheet.network.segment
                ? ({ state: "other group", group: group.name } as const)
                : null;
    return state
      ? hit(
          "stop",
          "network.carrier",
          state,
          evidence("address on", carrier ?? "the port itself", "this sheet"),
          evidence("member ports", (carrier === null ? [port] : over).join(", ") || "none", "this sheet"),
        )
      : null;
  }),

  rule("network.group", ({ sheet }) =>
    sheet.network.interfaces.flatMap((one) =>
      (one.kind === "virtual switch" ? one.groups : []).flatMap((group, i, groups) => {
        const state =
          group.name === ""
            ? "no name"
            : groups.some((g, j) => j < i && g.name === group.name)
              ? "twice"
              : group.segment === null
                ? "no network"
                : null;
        return state
          ? {
              ...hit(
                state === "no network" ? "caution" : "stop",
                AT,
                { group: group.name || `${i + 1}`, on: one.name, state },
                evidence(one.name, groups.map((g) => g.name || "no name").join(", "), "this sheet"),
              ),
              subject: `${one.name} ${i}`,
            }
          : [];
      }),
    ),
  ),

  rule("network.port-twice", ({ sheet }) => {
    const { interfaces } = sheet.network;
    const parents = [...new Set(interfaces.flatMap((i) => i.on))];
    return parents.flatMap((on) => {
      const all = holders(interfaces, on).filter((i) => i.kind !== "port");
      return all.length > 1
        ? {
            ...hit(
              "stop",
              AT,
              { port: on, holders: all.map((i) => i.name).join(" and ") },
              ...all.map((i) => evidence(i.name, i.on.join(", "), "this sheet")),
            ),
            subject: on,
          }
        : [];
    });
  }),

  rule("network.bond", (ground) =>
    ground.sheet.network.interfaces.flatMap(
      (one): Hit<typeof AT, { name: string; state: "one" | "wireless"; port?: string }>[] => {
        if (one.kind !== "bond" || one.on.length === 0) return [];
        const wireless = one.on.map((on) => portNamed(ground, on)).find((p) => p?.kind === "wireless");
        const fault = wireless
          ? ({ state: "wireless", port: wireless.seenAs } as const)
          : one.on.length < 2
            ? ({ state: "one" } as const)
            : null;
        return fault
          ? [
              {
                ...hit(
                  wireless ? "stop" : "caution",
                  AT,
                  { name: one.name, ...fault },
                  evidence(one.name, one.on.join(", "), "this sheet"),
                ),
                subject: one.name,
              },
            ]
          : [];
      },
    ),
  ),

  rule("network.mtu-below", ({ sheet }) => {
    const { interfaces } = sheet.network;
    return interfaces.flatMap((one) => {
      const below = one.on
        .flatMap((on) => interfaces.find((i) => i.name === on) ?? [])
        .find((i) => one.mtu !== null && (i.mtu ?? 1500) < one.mtu);
      return below
        ? {
            ...hit(
              "stop",
              AT,
              { name: one.name, mtu: String(one.mtu), below: below.name, passes: String(below.mtu ?? 1500) },
              evidence(one.name, `MTU ${one.mtu}`, "this sheet"),
              evidence(
                below.name,
                below.mtu === null ? "MTU 1500 (default)" : `MTU ${below.mtu}`,
                "this sheet",
              ),
            ),
            subject: one.name,
          }
        : [];
    });
  }),

  rule("network.other-address", (ground) =>
    ground.sheet.network.interfaces.flatMap((one) => {
      if (one.address.trim() === "") return [];
      const segment = ground.site?.segments.find((s) => s.id === one.segment) ?? null;
      const fault = addressFault(ground, one.address, segment);
      return fault
        ? {
            ...hit(
              "stop",
              AT,
              { name: one.name, address: one.address, ...fault },
              evidence(one.name, one.address, "this sheet"),
              evidence("segment", segment?.prefix ?? "none", "this sheet"),
            ),
            subject: one.name,
          }
        : [];
    }),
  ),

  rule("network.vlan-aware", ({ sheet }) => {
    const { carrier, interfaces } = sheet.network;
    const bridge =
      carrier === null ? undefined : stackBelow(interfaces, carrier).find((i) => i.kind === "bridge");
    return bridge?.kind === "bridge" && bridge.vlanAware
      ? hit(
          "caution",
          AT,
          { bridge: bridge.name },
          evidence("management address on", carrier ?? "", "this sheet"),
          evidence(bridge.name, "VLAN-aware", "this sheet"),
        )
      : null;
  }),
];
