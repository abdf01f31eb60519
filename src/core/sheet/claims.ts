import {
  addressClaim,
  dateClaim,
  distinct,
  identityClaims,
  nameClaim,
  wordsClaim,
  type Claim,
} from "../claims";
import type { MachineDocument } from "../machine";
import { isOpenOutside, serviceWords } from "../network";
import { setName } from "../storage";
import type { Sheet } from "./sheet";

/** What a sheet holds for its machine: the address, unless it is left to chance, and the host name. */
const heldBy = ({ network, answers }: Sheet): Claim[] => [
  ...(network.school === "dynamic" ? [] : addressClaim(network.address)),
  ...network.interfaces.flatMap((i) => addressClaim(i.address)),
  ...nameClaim(answers.hostName),
];

/** All that the sheet of this number claims. */
export function sheetClaims(sheet: Sheet, number: string): Claim[] {
  const { network, answers, handOver, storage } = sheet;
  const fixedBy = network.school === "dynamic" ? network.fixedBy : null;
  const ends = handOver.licence === "licensed" ? null : handOver.evaluationEnds;
  return distinct([
    ...heldBy(sheet),
    ...(ends ? [dateClaim(ends, "Evaluation ends")] : []),
    ...(fixedBy ? [dateClaim(fixedBy, "Address becomes static")] : []),
    ...storage.sets.flatMap((set) =>
      set.later === null ? [] : [dateClaim(set.later, `Create the ${setName(set)}`)],
    ),
    ...network.services
      .filter(isOpenOutside)
      .flatMap((service): Claim[] => [
        { kind: "door", key: `${service.until ?? "9999-12-31"} ${serviceWords(service)}` },
        ...(service.until ? [dateClaim(service.until, `Close ${serviceWords(service)} to the outside`)] : []),
      ]),
    wordsClaim(number, sheet.subject, answers.hostName, network.address),
  ]);
}

/** The claims that a sheet's rules ask about: its own, its name with the domain, and what only its machine may have. */
export function claimsAskedBy(sheet: Sheet, machine: MachineDocument | null): Claim[] {
  const { hostName, domain } = sheet.answers;
  return [
    ...heldBy(sheet),
    ...(hostName && domain ? nameClaim(`${hostName}.${domain}`) : []),
    ...(machine ? identityClaims(machine) : []),
  ];
}
