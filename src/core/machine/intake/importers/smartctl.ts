import { fail, ok, type Result } from "../../../result";
import type { Drive } from "../../facts/drive";
import {
  cleanText,
  parseShaped,
  plausibleBytes,
  plural,
  wholeNumber,
  type Importer,
  type Reading,
} from "./importer";
import { healthOf } from "./smartctl-health";
import { documentSchema, type Document } from "./smartctl-schema";

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
        message: `this is the list of ${plural(document.devices.length, "device")} of "smartctl --scan"; run "smartctl -j -a" on each of them`,
      });
    const says = (document.smartctl.messages ?? []).map((m) => cleanText(m.string)).filter((m) => m !== null);
    const name = document.device?.name.replace(/^\/dev\//, "") ?? "a device";
    if (!document.serial_number && !document.wwn && !document.logical_unit_id && !document.user_capacity)
      return fail({
        message: `smartctl read nothing from ${name}${says[0] ? `: "${says[0]}"` : ""}; adapters and controllers often need the option -d`,
      });
    const drive = toDrive(document, name);
    const health = drive.health;
    return ok(
      {
        facts: { drives: [drive] },
        understood: `${name}: ${drive.model ?? "a drive"}, ${health?.passed === false ? "FAILING, as reported by the drive" : typeof health?.hours === "number" ? plural(health.hours, "hour") : "operating hours not reported"}`,
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
