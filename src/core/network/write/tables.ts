import { writeCsv } from "../../machine";
import type { Cable, Wiring } from "../cable";
import { cableLabels, endKey, type CableEnd } from "../cable";
import type { WrittenFile } from "./host-plan";
import { fullName, namedHosts, type SitePlan } from "./site-plan";

/** Addresses of a site as a spreadsheet, in the columns that are read again. */
export const writeAddressTable = (plan: SitePlan): WrittenFile => ({
  path: "addresses.csv",
  text: writeCsv(
    ["address", "name", "mac"],
    namedHosts(plan).map((h) => [h.address, fullName(h), h.mac ?? ""]),
  ),
});

/** The ports of switches and other things, as far as they are described. */
export const writePortTable = ({ devices }: Pick<Wiring, "devices">): WrittenFile => ({
  path: "switch-ports.csv",
  text: writeCsv(
    ["device", "port", "mode", "native vlan", "tagged vlans", "group", "group by", "Mbit/s"],
    devices.flatMap((d) =>
      d.ports.map((p) => [
        ...[d.name, p.name, p.mode, String(p.native ?? ""), p.allowed, p.group],
        ...[p.group ? (p.lacp ? "LACP" : "static LAG") : "", String(p.megabitsPerSecond ?? "")],
      ]),
    ),
  ),
});

/** The list of cables with both ends, length, and a label for each end. */
export const writeCableTable = (
  cables: readonly Cable[],
  nameOf: (end: CableEnd) => { of: string; port: string },
): WrittenFile => {
  const words = (end: CableEnd): string => `${nameOf(end).of} ${nameOf(end).port}`;
  const sorted = [...cables].sort((a, b) =>
    `${words(a.a)} ${endKey(a.b)}`.localeCompare(`${words(b.a)} ${endKey(b.b)}`),
  );
  return {
    path: "cables.csv",
    text: writeCsv(
      [
        "from",
        "port",
        "to",
        "its port",
        "metres",
        "label",
        "label at the first end",
        "label at the other end",
      ],
      sorted.map((c) => {
        const [a, b, labels] = [nameOf(c.a), nameOf(c.b), cableLabels(c, words)];
        return [a.of, a.port, b.of, b.port, String(c.lengthMetres ?? ""), c.label, labels.atA, labels.atB];
      }),
    ),
  };
};
