import { z } from "zod";
import { parseJson } from "../../text";
import { isAddress } from "../address";
import { valueFinder, type NetworkReader, type NetworkReading, type NetworkRow } from "./row";

const ids = z.object({ type: z.string().catch(""), value: z.string().max(200).catch("") });
const one = z.object({
  chassis: z
    .record(
      z.string(),
      z.object({
        id: ids.optional().catch(undefined),
        "mgmt-ip": z
          .union([z.string(), z.array(z.string())])
          .optional()
          .catch(undefined),
      }),
    )
    .catch({}),
  port: z
    .object({ id: ids.optional().catch(undefined), descr: z.string().max(200).optional().catch(undefined) })
    .catch({}),
});
const byName = z.record(z.string(), one);
const tree = z.object({ lldp: z.object({ interface: z.union([byName, z.array(byName)]) }) });

function readLldp(text: string): Pick<NetworkReading, "rows" | "problems"> {
  const parsed = parseJson(text);
  if (!parsed.ok) return { rows: [], problems: parsed.problems };
  const read = tree.safeParse(parsed.value);
  if (!read.success)
    return {
      rows: [],
      problems: [{ line: 1, message: "no neighbour: check that LLDP is on, also at the switch" }],
    };
  const given = read.data.lldp.interface;
  const entries = (Array.isArray(given) ? given : [given]).flatMap((g) => Object.entries(g));
  const rows: NetworkRow[] = [];
  const problems: NetworkReading["problems"] = [];
  const lineOf = valueFinder(text);
  for (const [port, { chassis, port: far }] of entries) {
    const [device, about] = Object.entries(chassis)[0] ?? [];
    const devicePort = far.id?.type === "mac" ? (far.descr ?? "") : (far.id?.value ?? far.descr ?? "");
    const line = lineOf(port);
    if (!device || !about || devicePort === "") {
      problems.push({ line, message: `the neighbour of ${port.slice(0, 40)} reports no name or no port` });
      continue;
    }
    const addresses = [about["mgmt-ip"] ?? []].flat().filter(isAddress);
    rows.push({ kind: "cable", line, port, device, devicePort, address: addresses[0] ?? "" });
  }
  return { rows, problems };
}

/** What `lldpcli -f json show neighbors` prints on a machine: to which port of which switch each of its ports leads. */
export const LLDP: NetworkReader = {
  format: "LLDP neighbours",
  recognises: (text) => /^\s*\{\s*"lldp"\s*:/.test(text),
  read: readLldp,
};
