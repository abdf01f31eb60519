import { farPort, type FarPort } from "./cable";
import { segmentOf, type NetworkGround } from "./ground";
import { portsBelow, stackBelow, tagOf, type Interface } from "./interface";
import type { Segment } from "./segment";

/** One network that the machine takes part in: by what, over which ports, and with which tag. */
export interface NetworkUse {
  /** "management address", or the name of the interface or port group. */
  what: string;
  at: "network.segment" | "network.interfaces";
  segment: Segment;
  /** The tag that the machine itself puts on; null for none. A virtual switch puts on what its switch port asks for. */
  tag: number | null | "as needed";
  /** MACs of the ports that it goes through in the end. */
  ports: string[];
}

type Below = Pick<NetworkGround, "sheet" | "site">;

const tagBelow = (interfaces: readonly Interface[], name: string): NetworkUse["tag"] =>
  stackBelow(interfaces, name).some((i) => i.kind === "virtual switch")
    ? "as needed"
    : tagOf(interfaces, name);

/** All networks that the machine takes part in, as the sheet plans them: the management address first. */
export function networkUses(ground: Below): NetworkUse[] {
  const { port, carrier, interfaces } = ground.sheet.network;
  const segment = segmentOf(ground);
  const named = (id: string | null): Segment | null => ground.site?.segments.find((s) => s.id === id) ?? null;
  const management: NetworkUse[] = segment
    ? [
        {
          ...{ what: "management address", at: "network.segment", segment },
          tag: carrier === null ? null : tagBelow(interfaces, carrier),
          ports: carrier === null ? (port ? [port] : []) : portsBelow(interfaces, carrier),
        },
      ]
    : [];
  const others = interfaces.flatMap((i): NetworkUse[] => {
    const ports = portsBelow(interfaces, i.name);
    const own = named(i.segment);
    const groups = i.kind === "virtual switch" ? i.groups : [];
    return [
      ...(own && i.name !== carrier
        ? [
            {
              what: i.name,
              at: "network.interfaces" as const,
              segment: own,
              tag: tagBelow(interfaces, i.name),
              ports,
            },
          ]
        : []),
      ...groups.flatMap((g): NetworkUse[] => {
        const its = named(g.segment);
        return its
          ? [{ what: `${i.name} ${g.name}`, at: "network.interfaces", segment: its, tag: "as needed", ports }]
          : [];
      }),
    ];
  });
  return [...management, ...others];
}

/** Where the cable of a port leads at this site; null where none is planned. */
export const farPortOf = ({ site }: Pick<NetworkGround, "site">, mac: string): FarPort | null =>
  site ? farPort(site, mac) : null;

export const farWords = ({ device, name }: FarPort): string => `${device.name} port ${name}`;
