import type { Layout } from "../image";
import type { DrivePlan } from "./guard";
import { targetSeats, type TargetSeat } from "./target";

/** What a person makes of one drive on the sheet. */
export const FATES = ["target", "spare", "leave alone", "free"] as const;
export type Fate = (typeof FATES)[number];

type Plan = Omit<DrivePlan, "partners" | "leaveAlone" | "free"> & {
  partners: TargetSeat[];
  leaveAlone: string[];
  free: string[];
};

const without = (list: readonly string[], id: string): string[] => list.filter((x) => x !== id);

/** The seats of the target as the plan keeps them: its first member apart from the others. */
function seated(seats: readonly TargetSeat[]): Pick<Plan, "target" | "partners"> {
  const first = seats.find((s) => s.role === "member");
  return { target: first?.drive ?? null, partners: seats.filter((s) => s !== first && first !== undefined) };
}

/**
 * The plan once a drive has been given its fate. A single target that is exchanged, and every drive that stops being one
 * of the target, goes back to the list of those that must not be touched.
 */
export function withFate(plan: DrivePlan, drive: string, fate: Fate): Plan {
  const others = targetSeats(plan).filter((s) => s.drive !== drive);
  const keeps = fate !== "target" || plan.layout !== "single drive";
  const seats: TargetSeat[] = [
    ...(keeps ? others : []),
    ...(fate === "target" ? [{ drive, role: "member" as const }] : []),
    ...(fate === "spare" ? [{ drive, role: "spare" as const }] : []),
  ];
  const next = seated(seats);
  const dropped = others.filter((s) => !targetSeats(next).some((n) => n.drive === s.drive));
  return {
    layout: plan.layout,
    ...next,
    leaveAlone: [
      ...without(plan.leaveAlone, drive),
      ...dropped.map((s) => s.drive),
      ...(fate === "leave alone" ? [drive] : []),
    ],
    free: [...without(plan.free, drive), ...(fate === "free" ? [drive] : [])],
  };
}

/** The plan in another layout; as a single drive its first one stays, and the others are not touched. */
export function withLayout(plan: DrivePlan, layout: Layout): Plan {
  const partners = plan.partners.map((p) => ({ ...p }));
  const kept = { ...plan, layout, partners, leaveAlone: [...plan.leaveAlone], free: [...plan.free] };
  return layout === "single drive"
    ? { ...kept, partners: [], leaveAlone: [...kept.leaveAlone, ...partners.map((p) => p.drive)] }
    : kept;
}
