import type { Partitioning } from "../../image";
import { drivesOf, holdsData, isUnread } from "../../machine";
import { leastMembers, partitionView, targetsOf, wantsConsent, type PlannedPart } from "../../storage";
import type { Drawn, Gap, IntentDrive, IntentGround, IntentPart, IntentPath, TargetIntent } from "./shapes";

/** How the parts of the target come about: by what the file says of each, or by the installer itself. */
export type Cutting = "by the file" | "by the installer";

/** What stands in the way of naming a target: without it, no file may choose a drive by itself. */
function targetGaps(ground: IntentGround, cutting: Cutting): Gap[] {
  const gap = (path: IntentPath, message: string): Gap[] => [{ path, message }];
  if (!ground.profile) return gap("image.id", "the OS family is unknown, and so is its installer");
  if (ground.keepsSystem)
    return gap("image.id", "the installation method keeps the present system: nothing is installed");
  const targets = targetsOf(ground);
  if (targets.length === 0)
    return gap("storage.target", "the target is missing, and a file without one may use any drive");
  const { layout } = ground.sheet.storage;
  const members = targets.filter((t) => t.role === "member").length;
  if (members < leastMembers(layout))
    return gap(
      "storage.layout",
      `the layout (${layout}) needs ${leastMembers(layout)} drives, and ${members} are available`,
    );
  if (layout === "single drive" && targets.length > 1)
    return gap("storage.layout", "several drives are chosen for a system on a single drive");
  if (targets.some(({ drive }) => !drive.serial?.trim()))
    return gap("storage.target", "a drive has no serial number, so the file cannot identify it");
  const open = targets.filter(({ drive }) => wantsConsent(ground, drive)).length;
  if (open > 0)
    return gap(
      "storage.erase",
      targets.length === 1
        ? "the erasure of the drive is not confirmed for its present contents"
        : `the erasure of ${open} of ${targets.length} drives is not confirmed for their present contents`,
    );
  const view = partitionView(ground);
  if (!view)
    return cutting === "by the installer"
      ? []
      : gap("image.id", "the profile does not describe the partitions of its installer");
  return view.fault === null ? [] : gap("storage.target", view.fault);
}

/** What the sheet wants that no installer makes: it stands with every file, so that nobody takes the file for all of it. */
function besideOf(ground: IntentGround, swapLacks: boolean): Gap[] {
  const { sets } = ground.sheet.storage;
  const isBought = ground.sheet.handOver.licence === "licensed" && ground.profile?.evaluationDays;
  return [
    ...(isBought
      ? [
          {
            path: "handOver.licence" as const,
            message: "type the licence key: others can read the file",
          },
        ]
      : []),
    ...(swapLacks
      ? [
          {
            path: "storage.swap" as const,
            message: "the planned swap is not created by the installer: create it once the system runs",
          },
        ]
      : []),
    ...(sets.length > 0
      ? [
          {
            path: "storage.sets" as const,
            message: "pools, arrays and virtual drives on other drives are created by their own scripts",
          },
        ]
      : []),
  ];
}

/** The parts of the target with what each is for, by the rules that they were laid out by. */
function partsOf(rules: Partitioning, planned: readonly PlannedPart[]): IntentPart[] {
  const isRest = (size: Partitioning["parts"][number]["size"]): boolean =>
    [size.mib, size.memoryShare, size.share, size.mostMib].every((bound) => bound === undefined);
  return planned.flatMap((part): IntentPart[] => {
    const rule = rules.parts.find((r) => r.name === part.name);
    if (part.within !== null || !rule) return [];
    const { name, fs, bytes } = part;
    const volumes = planned
      .filter((v) => v.within === name)
      .map((v): IntentPart => {
        const own = rule.volumes.find((r) => r.name === v.name);
        const takesRest = own ? isRest(own.size) : false;
        return { name: v.name, use: "linux", fs: v.fs, bytes: v.bytes, takesRest, volumes: [] };
      });
    return [{ name, use: rule.use, fs, bytes, takesRest: isRest(rule.size), volumes }];
  });
}

/** Draws from a build which drives are written, and how. */
export function targetIntent(ground: IntentGround, cutting: Cutting): Drawn<TargetIntent> {
  const { sheet, profile } = ground;
  const gaps = targetGaps(ground, cutting);
  const view = partitionView(ground);
  const [first, ...others] = targetsOf(ground).map(({ drive, role }): IntentDrive => {
    return { drive, role, mayErase: holdsData(drive) || isUnread(drive) };
  });
  if (gaps.length > 0 || !first) return { ok: false, gaps };
  const drives: [IntentDrive, ...IntentDrive[]] = [first, ...others];
  return {
    ok: true,
    intent: {
      mode: sheet.boot.mode,
      target: {
        ...{ drives, layout: sheet.storage.layout, table: view?.table ?? "gpt" },
        parts: view && profile?.partitioning ? partsOf(profile.partitioning, view.parts) : [],
      },
      spared: drivesOf(ground).filter((d) => !drives.some(({ drive }) => drive.id === d.id)),
      beside: besideOf(ground, view?.swapLacks ?? false),
    },
  };
}
