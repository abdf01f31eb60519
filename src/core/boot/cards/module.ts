import { factsOf, type Drive, type Facts } from "../../machine";
import { formatFixed, addSeconds } from "../../units";
import type { BootPlan } from "../ground";
import { syncEnd, type PercentReading } from "./sync";
import type { CardModuleView, SyncView } from "./view";

type Set = Facts["sets"][number];

/** The set of cards that a drive of a module shows. */
export const cardSetOf = ({ sets }: Facts, drive: Drive | undefined): Set | null =>
  sets.find((s) => s.name === drive?.presentedBy) ?? null;

/** The drive that a module of cards shows to the system. */
export function cardDriveOf({ drives, storageControllers }: Facts): Drive | undefined {
  const modules = storageControllers.filter((c) => c.mode === "boot module").map((c) => c.id);
  return drives.find(
    (d) => d.missingSince === null && (d.media === "card" || modules.includes(d.controller ?? "")),
  );
}

/** What was read of a sync: by the tool that told the set, and typed from the module's page. */
function readingsOf({ sheet, machine }: BootPlan, set: Set | null): PercentReading[] {
  const at = machine?.document.sources[`sets.${set?.id}`]?.at;
  const told = set?.progress && at ? [{ at, percent: set.progress.percent }] : [];
  return [...told, ...sheet.boot.cards.readings].toSorted((a, b) => a.at.localeCompare(b.at));
}

const MARGIN_SECONDS = 300;

/** The end that a tool named, with the time at which it did. */
function toldEnd({ machine }: BootPlan, set: Set | null) {
  const at = machine?.document.sources[`sets.${set?.id}`]?.at;
  const left = set?.progress?.secondsLeft;
  return at && left != null ? addSeconds(at, left) : null;
}

function syncView(plan: BootPlan, set: Set | null): SyncView | null {
  const readings = readingsOf(plan, set);
  const last = readings.at(-1);
  if (!last || last.percent >= 100) return null;
  const own = syncEnd(readings);
  const told = own ? null : toldEnd(plan, set);
  const endsAt = own?.endsAt ?? told;
  const lateAt = own ? own.lateAt : told && addSeconds(told, MARGIN_SECONDS);
  const due = lateAt ?? (endsAt && addSeconds(endsAt, MARGIN_SECONDS));
  return {
    ...{ readings, endsAt, lateAt },
    from: own
      ? `${readings.length} readings, ${formatFixed(own.percentPerMinute, 1)} % per minute`
      : told
        ? "as reported by the module"
        : "one reading: enter a second one some minutes later to get the end time",
    stands: due === null ? "end not known" : plan.now > due ? "overdue" : "under way",
  };
}

/** The module for boot cards with its cards, its mirror and a sync under way; null where there is none. */
export function cardModule(plan: BootPlan): CardModuleView | null {
  const facts = factsOf(plan);
  if (!facts) return null;
  const drive = cardDriveOf(facts);
  const controller = facts.storageControllers.find(
    (c) => c.mode === "boot module" && (drive?.controller == null || drive.controller === c.id),
  );
  if (!drive && !controller) return null;
  const set = cardSetOf(facts, drive);
  const { cards } = plan.sheet.boot;
  const readAt = plan.machine?.document.sources[`sets.${set?.id}`]?.at ?? "";
  // A hundred that was typed holds until a tool has told of the mirror again.
  const isSaidWhole = cards.readings.some((r) => r.percent >= 100 && r.at > readAt);
  return {
    module: controller?.name ?? "boot flash card module",
    cards: (set?.members ?? []).map((m) => ({
      ...{ slot: m.name, state: m.state, isPrimary: m.name === cards.primary },
    })),
    mirror: set && {
      ...{ name: set.name, level: set.level ?? "not reported", state: set.state },
      isWhole: set.health === "good" || isSaidWhole,
    },
    sync: syncView(plan, set),
    isTarget: drive !== undefined && plan.sheet.storage.target === drive.id,
  };
}
