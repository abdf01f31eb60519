import { keysOf } from "../../../text";
import type { DriveHealth } from "../../facts/drive";
import { cleanText, wholeNumber } from "./importer";
import type { Document } from "./smartctl-schema";

/** Counters that mean damage, by the numbers that makers of ATA drives agree on. */
const COUNTERS: Record<number, "reallocated" | "pending" | "uncorrectable" | "interfaceErrors"> = {
  5: "reallocated",
  197: "pending",
  198: "uncorrectable",
  199: "interfaceErrors",
};

/** What a drive says of its own health. */
export function healthOf(document: Document): DriveHealth {
  const nvme = document.nvme_smart_health_information_log;
  const errors = Object.values(document.scsi_error_counter_log ?? {}).map((e) => e?.total_uncorrected_errors);
  const health: DriveHealth = {
    passed: document.smart_status?.passed ?? (hasBit(document, 3) ? false : null),
    hours: wholeNumber(document.power_on_time?.hours ?? nvme?.power_on_hours),
    powerCycles: wholeNumber(document.power_cycle_count),
    temperatureC: document.temperature?.current ?? nvme?.temperature ?? null,
    reallocated: wholeNumber(document.scsi_grown_defect_list),
    uncorrectable: errors.some((e) => e !== undefined)
      ? wholeNumber(errors.reduce<number>((sum, e) => sum + (e ?? 0), 0))
      : null,
    mediaErrors: wholeNumber(nvme?.media_errors),
    wearPercent: document.scsi_percentage_used_endurance_indicator ?? nvme?.percentage_used ?? null,
    // A threshold of 0 means that the drive does not watch its spare blocks.
    sparePercent: nvme?.available_spare_threshold ? (nvme.available_spare ?? null) : null,
    spareThresholdPercent: nvme?.available_spare_threshold || null,
    // One data unit is 1000 blocks of 512 bytes (NVMe base specification, SMART log page).
    writtenBytes: nvme?.data_units_written === undefined ? null : nvme.data_units_written * 512_000,
    selfTest: lastSelfTest(document),
    warnings: [],
  };
  for (const a of document.ata_smart_attributes?.table ?? []) {
    const counter = COUNTERS[a.id];
    // Some drives pack several numbers into the raw value; only its low 48 bits that make a plausible count are taken.
    if (counter && a.raw) health[counter] = a.raw.value < 2 ** 32 ? wholeNumber(a.raw.value) : null;
    if (a.when_failed && a.when_failed !== "-")
      health.warnings?.push(
        `${cleanText(a.name) ?? `attribute ${a.id}`} ${a.when_failed === "now" ? "is below its threshold" : "was below its threshold"}`,
      );
  }
  health.warnings?.push(...statusWords(document, health.warnings));
  const critical = nvme?.critical_warning ?? 0;
  CRITICAL.forEach((words, bit) => {
    if (critical & (1 << bit)) health.warnings?.push(words);
  });
  for (const key of keysOf(health)) if (health[key] === null) delete health[key];
  return health;
}

const hasBit = ({ smartctl: { exit_status: status = 0 } }: Document, bit: number): boolean =>
  Math.floor(status / 2 ** bit) % 2 === 1;

/**
 * What the exit status says, by its bits 3 to 7 (smartctl(8), "EXIT STATUS"): a failing disk, attributes under their
 * thresholds now or once, errors in the error log, errors in the log of self-tests. `told` are attributes by name.
 */
function statusWords(document: Document, told: readonly string[] = []): string[] {
  const { ata_smart_error_log: log, smart_status: status } = document;
  const count = log?.extended?.count ?? log?.summary?.count;
  const why = cleanText(status?.scsi?.ie_string);
  return [
    ...(hasBit(document, 3) || status?.passed === false
      ? [`reported as failing${why ? `: ${why}` : ""}`]
      : []),
    ...(hasBit(document, 4) && told.length === 0 ? ["an attribute is below its threshold"] : []),
    ...(hasBit(document, 5) && told.length === 0 ? ["an attribute was below its threshold once"] : []),
    ...(hasBit(document, 6) ? [`errors in its error log${count ? `: ${count}` : ""}`] : []),
    ...(hasBit(document, 7) ? ["errors in its self-test log"] : []),
  ];
}

/** The bits of the critical warning byte (NVMe base specification, SMART log page). */
const CRITICAL = [
  "spare blocks below the threshold",
  "temperature outside its limits",
  "reliability degraded by media errors",
  "media set to read-only",
  "backup of its volatile memory failed",
];

function lastSelfTest(document: Document): DriveHealth["selfTest"] {
  const ata = document.ata_smart_self_test_log?.standard?.table?.[0];
  if (ata)
    return {
      kind: cleanText(ata.type.string) ?? "self-test",
      passed: ata.status.passed ?? null,
      atHours: wholeNumber(ata.lifetime_hours),
    };
  const scsi = document.scsi_self_test_0;
  if (scsi?.result)
    return {
      kind: cleanText(scsi.code?.string) ?? "self-test",
      passed: scsi.result.value === undefined ? null : scsi.result.value === 0,
      atHours: wholeNumber(scsi.power_on_time?.hours),
    };
  const nvme = document.nvme_self_test_log?.table?.[0];
  if (!nvme) return null;
  const result = nvme.self_test_result?.value;
  return {
    kind: cleanText(nvme.self_test_code?.string) ?? "self-test",
    passed: result === undefined ? null : result === 0,
    atHours: wholeNumber(nvme.power_on_hours),
  };
}
