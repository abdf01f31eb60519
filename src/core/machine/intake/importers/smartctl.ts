import { z } from "zod";
import { fail, ok, type Result } from "../../../result";
import type { Drive, DriveHealth } from "../../facts/drive";
import {
  cleanText,
  parseShaped,
  plausibleBytes,
  plural,
  wholeNumber,
  type Importer,
  type Reading,
} from "./importer";

const attributeSchema = z.object({
  id: z.number(),
  name: z.string().optional(),
  when_failed: z.string().optional(),
  raw: z.object({ value: z.number(), string: z.string().optional() }).optional(),
});

const documentSchema = z.object({
  smartctl: z.object({
    exit_status: z.number().optional(),
    messages: z.array(z.object({ string: z.string(), severity: z.string().optional() })).optional(),
  }),
  device: z.object({ name: z.string(), protocol: z.string().optional() }).optional(),
  devices: z.array(z.object({ name: z.string() })).optional(),
  model_name: z.string().optional(),
  scsi_vendor: z.string().optional(),
  scsi_product: z.string().optional(),
  serial_number: z.string().optional(),
  firmware_version: z.string().optional(),
  scsi_revision: z.string().optional(),
  wwn: z.object({ naa: z.number(), oui: z.number(), id: z.number() }).optional(),
  logical_unit_id: z.string().optional(),
  user_capacity: z.object({ bytes: z.number() }).optional(),
  logical_block_size: z.number().optional(),
  physical_block_size: z.number().optional(),
  rotation_rate: z.number().optional(),
  smart_status: z
    .object({
      passed: z.boolean().optional(),
      scsi: z.object({ ie_string: z.string().optional() }).optional(),
    })
    .optional(),
  power_on_time: z.object({ hours: z.number() }).optional(),
  power_cycle_count: z.number().optional(),
  temperature: z.object({ current: z.number().optional() }).optional(),
  ata_smart_attributes: z.object({ table: z.array(attributeSchema) }).optional(),
  ata_smart_self_test_log: z
    .object({
      standard: z
        .object({
          table: z
            .array(
              z.object({
                type: z.object({ string: z.string() }),
                status: z.object({ string: z.string(), passed: z.boolean().optional() }),
                lifetime_hours: z.number().optional(),
              }),
            )
            .optional(),
        })
        .optional(),
    })
    .optional(),
  ata_smart_error_log: z
    .object({
      summary: z.object({ count: z.number() }).optional(),
      extended: z.object({ count: z.number() }).optional(),
    })
    .optional(),
  scsi_self_test_0: z
    .object({
      code: z.object({ string: z.string() }).optional(),
      result: z.object({ value: z.number().optional(), string: z.string().optional() }).optional(),
      power_on_time: z.object({ hours: z.number().optional() }).optional(),
    })
    .optional(),
  scsi_grown_defect_list: z.number().optional(),
  scsi_error_counter_log: z
    .object({
      read: z.object({ total_uncorrected_errors: z.number().optional() }).optional(),
      write: z.object({ total_uncorrected_errors: z.number().optional() }).optional(),
      verify: z.object({ total_uncorrected_errors: z.number().optional() }).optional(),
    })
    .optional(),
  scsi_percentage_used_endurance_indicator: z.number().optional(),
  nvme_smart_health_information_log: z
    .object({
      critical_warning: z.number().optional(),
      temperature: z.number().optional(),
      available_spare: z.number().optional(),
      available_spare_threshold: z.number().optional(),
      percentage_used: z.number().optional(),
      data_units_written: z.number().optional(),
      power_on_hours: z.number().optional(),
      media_errors: z.number().optional(),
    })
    .optional(),
  nvme_self_test_log: z
    .object({
      table: z
        .array(
          z.object({
            self_test_code: z.object({ string: z.string() }).optional(),
            self_test_result: z.object({ value: z.number().optional() }).optional(),
            power_on_hours: z.number().optional(),
          }),
        )
        .optional(),
    })
    .optional(),
});
type Document = z.infer<typeof documentSchema>;

/** `smartctl -j -a`, one drive a document: identity and what the drive says of its own health. */
export const smartctl: Importer = {
  tool: "smartctl",
  command: "smartctl -j -a DEVICE",
  recognises: (text) => /^\s*\{/.test(text) && /"smartctl"\s*:\s*\{/.test(text.slice(0, 2000)),
  parse(text): Result<Reading> {
    const parsed = parseShaped(text, documentSchema, "smartctl");
    if (!parsed.ok) return parsed;
    const document = parsed.value;
    if (document.devices && !document.device)
      return fail({
        message: `this is the list of ${plural(document.devices.length, "device")} that "smartctl --scan" found; run "smartctl -j -a" on each of them`,
      });
    const says = (document.smartctl.messages ?? []).map((m) => cleanText(m.string)).filter((m) => m !== null);
    const name = document.device?.name.replace(/^\/dev\//, "") ?? "a device";
    if (!document.serial_number && !document.wwn && !document.logical_unit_id && !document.user_capacity)
      return fail({
        message: `smartctl read nothing from ${name}${says[0] ? `: "${says[0]}"` : ""}; a bridge or controller often wants the option -d`,
      });
    const drive = toDrive(document, name);
    const health = drive.health;
    return ok(
      {
        facts: { drives: [drive] },
        understood: `${name}: ${drive.model ?? "a drive"}, ${health?.passed === false ? "FAILING by its own word" : typeof health?.hours === "number" ? plural(health.hours, "hour") : "no hours told"}`,
        ignored: ["capabilities and logs of commands"],
      },
      says.map((message) => ({ message })),
    );
  },
};

/** "0x5000c5..." from its three parts: 4, 24 and 36 bits (NAA of type 5; the arithmetic stays exact as bigint). */
function wwnOf({ wwn, logical_unit_id: unit }: Document): string | null {
  if (!wwn) return cleanText(unit);
  const parts = [wwn.naa, wwn.oui, wwn.id];
  if (!parts.every((n) => Number.isSafeInteger(n) && n >= 0)) return null;
  const value = (BigInt(wwn.naa) << 60n) | (BigInt(wwn.oui) << 36n) | BigInt(wwn.id);
  return `0x${value.toString(16).padStart(16, "0")}`;
}

function toDrive(document: Document, name: string): Partial<Drive> {
  const rate = document.rotation_rate;
  const nvme = document.device?.protocol === "NVMe";
  return {
    serial: cleanText(document.serial_number),
    wwn: wwnOf(document),
    model: cleanText(document.scsi_product ?? document.model_name),
    maker: cleanText(document.scsi_vendor),
    firmware: cleanText(document.firmware_version ?? document.scsi_revision),
    sizeBytes: plausibleBytes(document.user_capacity?.bytes) || undefined,
    logicalSectorBytes: wholeNumber(document.logical_block_size),
    physicalSectorBytes: wholeNumber(document.physical_block_size),
    media: nvme ? "nvme" : undefined,
    rotationRpm: rate && rate > 1 ? wholeNumber(rate) : null,
    seenAs: cleanText(name) ?? "?",
    health: healthOf(document),
  };
}

/** Counters that mean damage, by the numbers that makers of ATA drives agree on. */
const COUNTERS: Record<number, "reallocated" | "pending" | "uncorrectable" | "interfaceErrors"> = {
  5: "reallocated",
  197: "pending",
  198: "uncorrectable",
  199: "interfaceErrors",
};

function healthOf(document: Document): DriveHealth {
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
        `${cleanText(a.name) ?? `attribute ${a.id}`} ${a.when_failed === "now" ? "is under its threshold" : "was under its threshold"}`,
      );
  }
  health.warnings?.push(...statusWords(document, health.warnings));
  const critical = nvme?.critical_warning ?? 0;
  CRITICAL.forEach((words, bit) => {
    if (critical & (1 << bit)) health.warnings?.push(words);
  });
  return Object.fromEntries(Object.entries(health).filter(([, v]) => v !== null)) as DriveHealth;
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
      ? [`failing now by its own word${why ? `: ${why}` : ""}`]
      : []),
    ...(hasBit(document, 4) && told.length === 0 ? ["an attribute is under its threshold"] : []),
    ...(hasBit(document, 5) && told.length === 0 ? ["an attribute was under its threshold once"] : []),
    ...(hasBit(document, 6) ? [`errors in its error log${count ? `: ${count}` : ""}`] : []),
    ...(hasBit(document, 7) ? ["errors in its log of self-tests"] : []),
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
