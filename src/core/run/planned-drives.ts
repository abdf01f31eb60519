import type { RunPlan } from "./events";

/**
 * What becomes of the drives, as the sheet said at the start. Runs from before it was frozen tell it by their
 * expectations, which were drawn from the same sheet; never by a guard, which may be that of a stick.
 */
export function plannedDrives(plan: RunPlan): NonNullable<RunPlan["drives"]> {
  if (plan.drives) return plan.drives;
  const target = plan.expectations.find((e) => e.match.kind === "target");
  return {
    target: target
      ? [
          {
            id: plan.sheet.storage.target ?? "",
            name: target.planned,
            look: target.planned.replace(/ …\S+?(?=,|$)/, ""),
            holds: "",
          },
        ]
      : [],
    leftAlone: plan.expectations
      .filter((e) => e.match.kind === "untouched")
      .map((e) => e.what.replace(/ left alone$/, "")),
    free: [],
  };
}
