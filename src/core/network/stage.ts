import { term } from "../text";
import type { Path } from "../document";
import { open, said, type Stage } from "../stage";
import { netmaskOf, prefixLengthOf } from "./address";
import { NETWORK_CHECKS, NETWORK_MESSAGES } from "./checks";
import { portOf, segmentOf, type NetworkGround } from "./ground";
import { networkSlice, type NetworkSlice } from "./slice";

function summary(ground: NetworkGround) {
  const { school, address } = ground.sheet.network;
  if (school !== "dynamic" && !address) return open("Set the address and its port");
  const segment = segmentOf(ground);
  const port = portOf(ground);
  return said(
    [`${term(school)} ${address}`.trim(), segment?.name, port && `port ${port.seenAs}`]
      .filter(Boolean)
      .join(", "),
  );
}

function values(ground: NetworkGround) {
  const { network } = ground.sheet;
  const port = portOf(ground);
  const prefix = segmentOf(ground)?.prefix ?? "";
  const length = prefixLengthOf(prefix);
  const mask = (bits: number): string => (prefix.includes(":") ? `prefix length ${bits}` : netmaskOf(bits));
  return {
    "host.address": network.address,
    "host.gateway": network.gateway,
    "host.mac": port?.mac ?? "",
    "host.nameServers": network.nameServers.join(", "),
    "host.netmask": length === null ? "" : mask(length),
    "host.port": port?.seenAs ?? "",
    "host.prefix": length === null ? "" : String(length),
  };
}

/** Stage E: by which port and under which address the machine is reached. */
export const networkStage = {
  zone: "E",
  title: "Network",
  slice: { network: networkSlice.prefault({}) },
  names: {
    "network.port": "port",
    "network.segment": "segment",
    "network.school": "address assignment",
    "network.address": "address",
    "network.gateway": "gateway",
    "network.nameServers": "DNS servers",
    "network.fixedBy": "date of the static address",
    "network.carrier": "interface of the management address",
    "network.interfaces": "interfaces",
    "network.services": "services",
    "network.hostKeys": "host keys",
  },
  checks: NETWORK_CHECKS,
  messages: NETWORK_MESSAGES,
  summary,
  values,
} satisfies Stage<NetworkGround, Path<{ network: NetworkSlice }>>;
