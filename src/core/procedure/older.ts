import { upgradedStep } from "../work";

type Bag = Record<string, unknown>;

const bag = (value: unknown): Bag => (typeof value === "object" && value !== null ? (value as Bag) : {});
const bags = (value: unknown): Bag[] => (Array.isArray(value) ? value.map(bag) : []);

/** Steps became operations. */
export const upgradedSteps = ({ steps, ...plan }: Bag): Bag => ({
  ...plan,
  schemaVersion: 2,
  steps: Array.isArray(steps) ? steps.map(upgradedStep) : steps,
});

/**
 * What becomes of the drives in runs from before that was frozen: told by their expectations, which were drawn from the
 * same sheet; never by a guard, which may be that of a stick.
 */
function olderDrives(sheet: Bag, expectations: readonly Bag[]): Bag {
  const of = (kind: string): Bag[] => expectations.filter((e) => bag(e.match).kind === kind);
  return {
    target: of("target")
      .slice(0, 1)
      .map(({ planned }) => ({
        id: bag(sheet.storage).target ?? "",
        name: planned,
        look: String(planned).replace(/ …\S+?(?=,|$)/, ""),
        holds: "",
      })),
    leftAlone: of("untouched").map(({ what }) => String(what).replace(/ left alone$/, "")),
    free: [],
  };
}

/** The plan of a run became a procedure: what only a build has stands in its basis. */
export function asProcedure(old: Bag): Bag {
  const { number, subject, steps, expectations, findings, sheet } = old;
  return {
    schemaVersion: 3,
    kind: "build",
    number,
    subject,
    steps,
    expectations,
    findings,
    machine: {
      id: bag(bag(sheet).machine).id ?? null,
      name: old.machineName,
      line: old.machineLine,
      model: old.machineModel ?? "",
      defects: old.defects ?? [],
    },
    site: { name: old.siteName, timeZone: old.timeZone },
    basis: {
      revision: old.revision,
      image: { name: old.imageName, check: old.imageCheck },
      profile: old.profileName,
      management: old.management,
      drives: old.drives ?? olderDrives(bag(sheet), bags(expectations)),
      sheet,
    },
  };
}
