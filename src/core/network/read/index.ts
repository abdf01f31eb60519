import { fail, ok, type Result } from "../../result";
import { CSV } from "./csv";
import { DNSMASQ, DNSMASQ_LEASES } from "./dnsmasq";
import { ISC } from "./isc";
import { KEA } from "./kea";
import { LLDP } from "./lldp";
import { HOSTS, NEIGHBOURS, ZONE } from "./names";
import { openLineOf } from "../../text";
import { withoutLongLines, type NetworkReader, type NetworkReading } from "./row";

/** The formats that are read, the most telling first. */
export const NETWORK_READERS: readonly NetworkReader[] = [
  ...[LLDP, KEA, ISC, DNSMASQ, DNSMASQ_LEASES, ZONE, NEIGHBOURS, CSV, HOSTS],
];

/** Reads a file or an output that says something of a network. A line that is not understood is told, and the rest kept. */
export function readNetworkText(text: string): Result<NetworkReading> {
  // JSON may stand on one line; every other format has lines that a person can read.
  const json = [LLDP, KEA].find((r) => r.recognises(text));
  const short = json ? { text, problems: [] } : withoutLongLines(text);
  const reader = json ?? NETWORK_READERS.find((r) => r.recognises(short.text));
  if (!reader)
    return fail({
      message: `Unknown format. Supported: ${NETWORK_READERS.map((r) => r.format).join(", ")}.`,
    });
  const { rows, problems } = reader.read(short.text);
  return ok({
    ...{ format: reader.format, rows, problems: [...short.problems, ...problems] },
    openLine: json ? null : openLineOf(text),
  });
}

export type { NetworkReading, NetworkRow } from "./row";
