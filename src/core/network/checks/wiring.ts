import { evidence, hit } from "../../finding";
import { factsOf, type Facts, type Port } from "../../machine";
import { carries } from "../device";
import type { NetworkGround } from "../ground";
import { portOf, segmentOf } from "../ground";
import { BOND_WORDS, type Interface } from "../interface";
import { farPortOf, farWords, networkUses, type NetworkUse } from "../uses";
import type { FarPort } from "../cable";
import { contains, isAddress } from "../address";
import { rule, type NetworkRule } from "./rule";

const AT = "network.interfaces" as const;
const VLAN = (vlan: number): string => `VLAN ${vlan}`;

/** What the machine sends and what the switch port does with it, where they do not fit. */
function mismatch({ tag, segment }: NetworkUse, far: FarPort) {
  const { vlan } = segment;
  if (vlan === null || !far.port) return null;
  const how = carries(far.port, vlan);
  if (how === null) return "closed" as const;
  if (tag === null && how === "tagged") return "wants tag" as const;
  return typeof tag === "number" && how === "untagged" ? ("takes no tag" as const) : null;
}

/** All by which a person at the rear of the machine could tell a port: where it is, what it can do, whether its link is on. */
const looks = (facts: Facts, { pci, driver, maxMegabits, link }: Port): string =>
  [facts.pci.find((p) => p.slot === pci)?.place, driver, maxMegabits, link].join(" | ");

const portWords = ({ port }: FarPort): string =>
  port === null
    ? "not described"
    : [
        port.mode,
        port.native === null ? "no native VLAN" : `native ${port.native}`,
        ...(port.mode === "trunk" ? [`allowed ${port.allowed || "none"}`] : []),
      ].join(", ");

/** The far ends of the ports of a bond, for those that have a cable to a switch. */
const farPorts = (ground: NetworkGround, bond: Interface): FarPort[] =>
  bond.on.flatMap((on) => farPortOf(ground, on) ?? []).filter((f) => f.device.kind === "switch");

/** Why the groups of the switch ports do not fit what a bond asks for; null where they do, or where nobody described them. */
function groupFault(bond: Extract<Interface, { kind: "bond" }>, fars: readonly FarPort[]) {
  const ports = fars.flatMap((f) => f.port ?? []);
  if (ports.length === 0 || ports.length < fars.length) return null;
  const { asks } = BOND_WORDS[bond.mode];
  const grouped = ports.filter((p) => p.group !== "");
  if (asks === "nothing") return grouped.length > 0 ? ("unasked" as const) : null;
  if (grouped.length < ports.length) return "missing" as const;
  // Groups of two switches have names of their own; whether they act as one is another rule's question.
  const apart = new Set(fars.map((f) => f.device.id)).size;
  const groups = new Set(fars.map((f) => `${f.device.id} ${f.port?.group}`)).size;
  if (groups > apart) return "several" as const;
  return ports.some((p) => p.lacp !== (asks === "lacp")) ? ("other way" as const) : null;
}

/** Rules about the way from the machine's ports to the switch. */
export const WIRING_CHECKS: readonly NetworkRule[] = [
  rule("network.vlan-tag", (ground) =>
    networkUses(ground).flatMap(({ what, at, tag, segment }) =>
      typeof tag === "number" && segment.vlan !== null && tag !== segment.vlan
        ? {
            ...hit(
              "stop",
              at,
              { what, segment: segment.name, vlan: VLAN(segment.vlan), tag: VLAN(tag) },
              evidence(what, `tag ${tag}`, "this sheet"),
              evidence(segment.name, VLAN(segment.vlan), "site"),
            ),
            subject: what,
          }
        : [],
    ),
  ),

  rule("network.vlan-path", (ground) =>
    networkUses(ground).flatMap((use) =>
      use.ports.flatMap((mac) => {
        const far = farPortOf(ground, mac);
        const state = far && mismatch(use, far);
        if (!far || !state) return [];
        const sent =
          use.tag === "as needed" ? "required tag" : use.tag === null ? "no tag" : `tag ${use.tag}`;
        const vlan = VLAN(use.segment.vlan!);
        return {
          ...hit(
            "stop",
            use.at,
            { what: use.what, vlan, far: farWords(far), set: portWords(far), state },
            evidence(use.what, `${use.segment.name}, ${vlan}, sent with ${sent}`, "this sheet"),
            evidence(farWords(far), portWords(far), "site"),
          ),
          subject: `${use.what} ${mac}`,
        };
      }),
    ),
  ),

  rule("network.mtu-path", (ground) => {
    const { interfaces } = ground.sheet.network;
    return networkUses(ground).flatMap((use) => {
      const one = interfaces.find((i) => i.name === use.what || i.name === ground.sheet.network.carrier);
      const mtu = one && (use.at === "network.segment" || one.name === use.what) ? one.mtu : null;
      if (mtu === null) return [];
      const passed = [
        ...(use.segment.mtu === null ? [] : [{ what: use.segment.name, mtu: use.segment.mtu }]),
        ...use.ports.flatMap((mac) => {
          const far = farPortOf(ground, mac);
          return far?.device.mtu ? [{ what: far.device.name, mtu: far.device.mtu }] : [];
        }),
      ];
      const least = passed.sort((a, b) => a.mtu - b.mtu)[0];
      return least && least.mtu < mtu
        ? {
            ...hit(
              "stop",
              AT,
              { what: use.what, mtu: String(mtu), on: least.what, passes: String(least.mtu) },
              evidence(use.what, `MTU ${mtu}`, "this sheet"),
              evidence(least.what, `MTU ${least.mtu}`, "site"),
            ),
            subject: use.what,
          }
        : [];
    });
  }),

  rule("network.bond-group", (ground) =>
    ground.sheet.network.interfaces.flatMap((bond) => {
      if (bond.kind !== "bond") return [];
      const fars = farPorts(ground, bond);
      const state = groupFault(bond, fars);
      return state
        ? {
            ...hit(
              state === "missing" && BOND_WORDS[bond.mode].asks === "lacp" ? "caution" : "stop",
              AT,
              { bond: bond.name, mode: bond.mode, ports: fars.map(farWords).join(", "), state },
              evidence(bond.name, bond.mode, "this sheet"),
              ...fars.map((f) =>
                evidence(
                  farWords(f),
                  f.port?.group ? `LAG ${f.port.group}, ${f.port.lacp ? "LACP" : "static"}` : "in no LAG",
                  "site",
                ),
              ),
            ),
            subject: bond.name,
          }
        : [];
    }),
  ),

  rule("network.bond-switches", (ground) =>
    ground.sheet.network.interfaces.flatMap((bond) => {
      const fars = bond.kind === "bond" ? farPorts(ground, bond) : [];
      if (bond.kind !== "bond" || fars.length < 2) return [];
      const switches = [...new Set(fars.map((f) => f.device.name))];
      const grouped = BOND_WORDS[bond.mode].asks !== "nothing";
      if ((switches.length === 1) === grouped) return [];
      return {
        ...hit(
          "caution",
          AT,
          {
            bond: bond.name,
            mode: bond.mode,
            switches: switches.join(" and "),
            state: grouped ? "two" : "one",
          },
          ...fars.map((f) => evidence("cable to", farWords(f), "site")),
        ),
        subject: bond.name,
      };
    }),
  ),

  rule("network.shared-port", (ground) => {
    const uses = networkUses(ground);
    const storage = uses.filter((u) => u.segment.purpose === "storage");
    return storage.flatMap((s) => {
      const other = uses.find(
        (u) =>
          u.segment.purpose !== "storage" &&
          u.ports.length === 1 &&
          s.ports.includes(u.ports[0]!) &&
          s.ports.length === 1,
      );
      return other
        ? {
            ...hit(
              "caution",
              AT,
              { storage: s.what, other: other.what, port: s.ports[0]! },
              evidence(s.what, `${s.segment.name} on ${s.ports[0]}`, "this sheet"),
              evidence(other.what, `${other.segment.name} on ${other.ports[0]}`, "this sheet"),
            ),
            subject: s.what,
          }
        : [];
    });
  }),

  rule("network.which-port", (ground) => {
    const facts = factsOf(ground);
    const port = portOf(ground);
    if (!facts || !port || port.kind !== "ethernet" || farPortOf(ground, port.mac)) return null;
    const alike = facts.ports.filter(
      (p) => p.kind === "ethernet" && p.mac !== port.mac && looks(facts, p) === looks(facts, port),
    );
    if (alike.length === 0) return null;
    const [first] = alike;
    return hit(
      "caution",
      "network.port",
      {
        port: port.seenAs,
        mac: port.mac,
        others: alike.map((p) => p.seenAs).join(", "),
        state: port.link === "up" ? "up" : port.link === "down" ? "down" : "unknown",
      },
      evidence(port.seenAs, `${port.mac}, link ${port.link}`, "last import"),
      evidence(first!.seenAs, `${first!.mac}, link ${first!.link}`, "last import"),
    );
  }),

  rule("network.unreached-names", (ground) => {
    const segment = segmentOf(ground);
    const { school, gateway, nameServers } = ground.sheet.network;
    if (!segment || school !== "fixed" || (segment.purpose !== "isolated lab" && gateway !== "")) return null;
    const beyond = nameServers.filter((a) => isAddress(a) && !contains(segment.prefix, a));
    return beyond.length > 0
      ? hit(
          "caution",
          "network.nameServers",
          {
            servers: beyond.join(", "),
            segment: segment.name,
            state: gateway === "" ? "no gateway" : "isolated",
          },
          evidence("DNS servers", nameServers.join(", "), "this sheet"),
          evidence(
            segment.name,
            `${segment.prefix}, ${segment.purpose}${gateway === "" ? ", no gateway" : ""}`,
            "site",
          ),
        )
      : null;
  }),
];
