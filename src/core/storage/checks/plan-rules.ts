import { evidence, hit, type FactsOf, type Hit } from "../../finding";
import { profileName } from "../../image";
import { driveLook, sourceWords } from "../../machine";
import { byteCount, formatBinaryBytes, formatBytes, total, formatNumber } from "../../units";
import { percent, SMALL_SHARE } from "../bench";
import { targetOf, targetsOf, type StorageGround } from "../ground";
import { cacheView, partitionView, type PartitionView } from "../plan";
import { grossBytes } from "../target";
import type { PLAN_MESSAGES } from "./plan-messages.en";
import { rule, type At, type StorageRule } from "./rule";

type Codes = keyof typeof PLAN_MESSAGES;
type Found<Code extends Codes> = Hit<At, FactsOf<(typeof PLAN_MESSAGES)[Code]>>;

/** A rule about the parts of the target; silent where nothing tells them. */
const ofPlan = <Code extends Codes>(
  code: Code,
  run: (plan: PartitionView, ground: StorageGround) => Found<Code> | null,
): StorageRule =>
  rule(code, (ground) => {
    const plan = partitionView(ground);
    return plan ? run(plan, ground) : null;
  });

/** What is left idle is called out from this share, and this size, on. */
const MUCH_IDLE = 0.2;
const LEAST_IDLE = 10e9;
const MUCH_SWAP = 0.25;
/** On a machine for guests a cache above this share is memory that they do not get. */
const MUCH_CACHE = 0.3;

const counted = (n: number): string => formatNumber(n);
const ofProfile = (ground: StorageGround) => `OS profile ${profileName(ground)}`;
const swapOf = ({ sheet }: StorageGround) => evidence("swap", sheet.storage.swap, "this sheet");

/** Rules about what the installer makes of the target by itself. */
export const PLAN_CHECKS: readonly StorageRule[] = [
  ofPlan("storage.idle", ({ idleBytes, driveBytes, fault }, ground) =>
    fault === null && idleBytes > LEAST_IDLE && idleBytes > MUCH_IDLE * driveBytes
      ? hit(
          "caution",
          "storage.target",
          {
            ...{ profile: profileName(ground), idle: formatBytes(idleBytes) },
            ...{ used: formatBytes(driveBytes - idleBytes), whole: formatBytes(driveBytes) },
          },
          evidence("drive", formatBytes(driveBytes), sourceWords(ground, "drives")),
          evidence("unused", percent(idleBytes / driveBytes), ofProfile(ground)),
        )
      : null,
  ),

  rule("storage.cache-memory", (ground) => {
    const cache = cacheView(ground);
    const { profile } = ground;
    if (!cache || !profile || profile.requirements.virtualisation !== "required") return null;
    return cache.mostBytes > MUCH_CACHE * cache.memoryBytes
      ? hit(
          "caution",
          "storage.sets",
          {
            ...{ cache: formatBinaryBytes(cache.mostBytes), memory: formatBinaryBytes(cache.memoryBytes) },
            left: formatBinaryBytes(cache.leftBytes),
          },
          evidence(
            "memory",
            formatBinaryBytes(cache.memoryBytes),
            sourceWords(ground, "memory.installedBytes"),
          ),
          evidence("cache", cache.figure.formula, ofProfile(ground)),
        )
      : null;
  }),

  rule("storage.target-share", (ground) => {
    const { layout } = ground.sheet.storage;
    const sizes = targetsOf(ground)
      .filter((t) => t.role === "member")
      .map((t) => byteCount(t.drive.sizeBytes));
    const [usable, whole] = [grossBytes(layout, sizes), total(sizes)];
    return sizes.length > 1 && usable < SMALL_SHARE * whole
      ? hit(
          "stop",
          "storage.layout",
          {
            ...{ layout, count: String(sizes.length) },
            ...{ usable: formatBytes(usable), whole: formatBytes(whole) },
          },
          evidence("layout", `${layout} of ${sizes.length}`, "this sheet"),
          evidence("drive capacity", formatBytes(whole), "last import"),
        )
      : null;
  }),

  ofPlan("storage.table-limit", ({ fault, driveBytes, table }, ground) =>
    fault !== null
      ? hit(
          "stop",
          "storage.target",
          { profile: profileName(ground), size: formatBytes(driveBytes), fault },
          evidence("table", table === "dos" ? "MBR" : "GPT", ofProfile(ground)),
          evidence("drive", formatBytes(driveBytes), "last import"),
        )
      : null,
  ),

  ofPlan("storage.efi-small", ({ smallEfi }, ground) => {
    const target = targetOf(ground);
    return smallEfi && target
      ? hit(
          "stop",
          "storage.target",
          {
            ...{ profile: profileName(ground), size: formatBinaryBytes(smallEfi.bytes) },
            ...{ clusters: counted(smallEfi.clusters), wanted: formatBinaryBytes(smallEfi.wantedBytes) },
          },
          evidence("EFI system partition", formatBinaryBytes(smallEfi.bytes), ofProfile(ground)),
          evidence(
            "logical sector",
            `${counted(target.logicalSectorBytes ?? 512)} bytes`,
            sourceWords(ground, `drives.${target.id}.logicalSectorBytes`),
          ),
        )
      : null;
  }),

  rule("storage.legacy-sectors", (ground) => {
    const target = targetOf(ground);
    return target?.logicalSectorBytes === 4096 && ground.sheet.boot.mode === "legacy"
      ? hit(
          "stop",
          "storage.target",
          { drive: driveLook(target) },
          evidence(
            "logical sector",
            "4,096 bytes",
            sourceWords(ground, `drives.${target.id}.logicalSectorBytes`),
          ),
          evidence("mode", "legacy", "this sheet"),
        )
      : null;
  }),

  ofPlan("storage.swap-large", ({ swapBytes, driveBytes }, ground) =>
    swapBytes > MUCH_SWAP * driveBytes
      ? hit(
          "caution",
          "storage.swap",
          { swap: formatBytes(swapBytes), share: percent(swapBytes / driveBytes) },
          swapOf(ground),
          evidence("drive", formatBytes(driveBytes), "last import"),
        )
      : null,
  ),

  ofPlan("storage.swap-pool", (plan, ground) =>
    plan.swapLacks && plan.parts.some((p) => p.fs === "zfs")
      ? hit("caution", "storage.swap", wantedSwap(plan, ground), swapOf(ground))
      : null,
  ),

  ofPlan("storage.swap-by-hand", (plan, ground) =>
    plan.swapLacks && !plan.parts.some((p) => p.fs === "zfs")
      ? hit("note", "storage.swap", wantedSwap(plan, ground), swapOf(ground))
      : null,
  ),
];

function wantedSwap({ swaps }: PartitionView, ground: StorageGround): { profile: string; swap: string } {
  const wanted = swaps.find((s) => s.school === ground.sheet.storage.swap)?.bytes ?? 0;
  return { profile: profileName(ground), swap: formatBytes(wanted) };
}
