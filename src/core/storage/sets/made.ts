import type { Drive, OnMachine } from "../../machine";
import { setFigures } from "./figures";
import { setsNow } from "./ground";
import { madeId } from "./made-id";
import type { PlannedSet } from "./planned";

/**
 * The machine as it stands once a controller has made the planned virtual drives: each is a drive then, empty, of the size
 * that can be used, without a serial that anybody knows beforehand. A set that cannot be made shows none.
 */
export function withMadeDrives<Machine extends NonNullable<OnMachine["machine"]>>(
  machine: Machine,
  sets: readonly PlannedSet[],
): Machine {
  const { document } = machine;
  const byId = (id: string): Drive | undefined => document.facts.drives.find((d) => d.id === id);
  const made = setsNow(sets).flatMap((set): Drive[] => {
    const figures = set.keeper === "RAID controller" ? setFigures(set, byId) : null;
    return figures?.ok && set.name !== ""
      ? [
          {
            ...{ id: madeId(set), serial: null, wwn: null, model: null, maker: null, firmware: null },
            ...{ sizeBytes: figures.value.candidate.usableBytes, media: "virtual", rotationRpm: null },
            ...{
              logicalSectorBytes: 512,
              physicalSectorBytes: null,
              removable: false,
              seenAs: "to be created",
            },
            ...{
              bay: null,
              controller: byId(set.members[0] ?? "")?.controller ?? null,
              driver: null,
              presentedBy: set.name,
            },
            ...{
              health: null,
              table: null,
              shingled: null,
              san: null,
              sanPaths: null,
              firstSector: null,
              efiVolumes: null,
              contents: [],
              memberOf: [],
              missingSince: null,
            },
          },
        ]
      : [];
  });
  if (made.length === 0) return machine;
  const facts = { ...document.facts, drives: [...document.facts.drives, ...made] };
  return { ...machine, document: { ...document, facts } };
}
