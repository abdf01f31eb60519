import { addressesOf, machineDates, presentDrives, type MachineDocument } from "../machine";
import {
  addressClaim,
  dateClaim,
  distinct,
  macClaim,
  nameClaim,
  serialClaim,
  wordsClaim,
  type Claim,
} from "./claim";

/** The serials and MACs of a machine, which no other may have. */
export const identityClaims = ({ facts }: MachineDocument): Claim[] => [
  ...serialClaim(facts.chassis?.serial),
  ...facts.ports.map((p) => macClaim(p.mac)),
];

/** The parts that notes of compatibility are about. */
function partClaims({ facts }: MachineDocument): Claim[] {
  const model = `${facts.chassis?.maker ?? ""} ${facts.chassis?.model ?? ""}`.trim();
  return [
    ...facts.pci.map((p): Claim => ({ kind: "device", key: `pci ${p.ids}` })),
    ...facts.usb.map((u): Claim => ({ kind: "device", key: `usb ${u.ids}` })),
    ...presentDrives(facts).flatMap((d): Claim[] => (d.model ? [{ kind: "drive model", key: d.model }] : [])),
    ...(model ? [{ kind: "machine model", key: model } as const] : []),
  ];
}

/** All that a machine of this name claims. */
export function machineClaims(document: MachineDocument, name: string): Claim[] {
  const { chassis, system, ports } = document.facts;
  const addresses = addressesOf(document);
  return distinct([
    ...addresses.flatMap(addressClaim),
    ...nameClaim(system?.hostName ?? ""),
    ...identityClaims(document),
    ...(document.typed.circuit ? [{ kind: "circuit", key: document.typed.circuit } as const] : []),
    ...partClaims(document),
    ...machineDates(document).map((d) => dateClaim(d.due, d.what)),
    wordsClaim(name, chassis?.serial, ...ports.map((p) => p.mac), ...addresses, system?.hostName),
  ]);
}
