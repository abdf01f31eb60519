import type { Layout } from "../image";
import type { DrivePlan } from "./guard";
import { inLayout, newSet, seatIn, type Chosen } from "./sets/change";
import { madeId } from "./sets/made-id";
import type { PlannedSet } from "./sets/planned";
import { idsOf, type SeatRole } from "./sets/seats";
import { targetSeats, type TargetSeat } from "./target";

/** What a person makes of one drive on the sheet. */
export const FATES = ["target", "spare", "leave alone", "free"] as const;
export type Fate = (typeof FATES)[number];

type Given = Omit<DrivePlan, "sets"> & { sets: readonly PlannedSet[] };
/** What becomes of all drives of a machine. */
export type PlanOfDrives = Omit<Given, "partners" | "leaveAlone" | "free" | "sets"> & {
  partners: TargetSeat[];
  leaveAlone: string[];
  free: string[];
  sets: PlannedSet[];
};

const without = (list: readonly string[], id: string): string[] => list.filter((x) => x !== id);

/** The seats of the target as the plan keeps them: its first member apart from the others. */
function seated(seats: readonly TargetSeat[]): Pick<PlanOfDrives, "target" | "partners"> {
  const first = seats.find((s) => s.role === "member");
  return { target: first?.drive ?? null, partners: seats.filter((s) => s !== first && first !== undefined) };
}

/**
 * The plan once a drive has been given its fate. A single target that is exchanged, and every drive that stops being one
 * of the target, goes back to the list of those that must not be touched.
 */
export function withFate(plan: Given, drive: string, fate: Fate): PlanOfDrives {
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
    sets: seatIn(plan.sets, drive, null, "member"),
  };
}

/** The plan once a drive belongs to a planned set. A target that is one of it goes, and no other drive takes its place. */
export function withSeat(plan: Given, drive: string, set: string, role: SeatRole): PlanOfDrives {
  const freed = withFate(plan, drive, "free");
  return { ...freed, free: without(freed.free, drive), sets: seatIn(plan.sets, drive, set, role) };
}

/** The plan with a new set of these drives; `taken` are names that stand on the machine already. */
export function withNewSet(plan: Given, drives: readonly string[], taken: readonly string[]): PlanOfDrives {
  const set = { ...newSet(plan.sets, drives, taken), members: [] };
  const empty = withLayout({ ...plan, sets: [...plan.sets, set] }, plan.layout);
  return drives.reduce((next, drive) => withSeat(next, drive, set.id, "member"), empty);
}

/** The plan without a set that was to be made; its drives are not touched then. */
export function withoutSet(plan: Given, id: string): PlanOfDrives {
  const gone = plan.sets.filter((s) => s.id === id).flatMap(idsOf);
  const kept = gone.reduce((next: Given, drive) => withFate(next, drive, "leave alone"), plan);
  const isTarget = plan.target === madeId({ id });
  const target = isTarget ? withFate(kept, kept.target ?? "", "free") : kept;
  return withLayout(
    { ...target, free: without(target.free, madeId({ id })), sets: kept.sets.filter((s) => s.id !== id) },
    plan.layout,
  );
}

/** The plan in another layout; as a single drive its first one stays, and the others are not touched. */
export function withLayout(plan: Given, layout: Layout): PlanOfDrives {
  const partners = plan.partners.map((p) => ({ ...p }));
  const own = { free: [...plan.free], sets: [...plan.sets] };
  const kept = { ...plan, ...own, layout, partners, leaveAlone: [...plan.leaveAlone] };
  return layout === "single drive"
    ? { ...kept, partners: [], leaveAlone: [...kept.leaveAlone, ...partners.map((p) => p.drive)] }
    : kept;
}

/** The plan once a set stands in a layout found for `drives`; those that the layout leaves out are free. */
export function withSetLayout(
  plan: Given,
  id: string,
  chosen: Chosen,
  drives: readonly string[],
): PlanOfDrives {
  const kept = withLayout(plan, plan.layout);
  return {
    ...kept,
    free: [...kept.free, ...chosen.left.map((place) => drives[place]!)],
    sets: kept.sets.map((set) => (set.id === id ? inLayout(set, chosen, drives) : set)),
  };
}
