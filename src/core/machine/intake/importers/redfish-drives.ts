import { own } from "../../../text";
import type { Drive } from "../../facts/drive";
import { cleanPlace, cleanText, plausibleBytes, wholeNumber, type Observed } from "./importer";
import { lastPart, type Resource } from "./redfish-schema";

const wwnOf = (r: Resource): string | null =>
  cleanText(r.Identifiers?.map((i) => i.DurableName).find((n) => n && n.length >= 8));

/** A drive as its controller tells of it. */
export function toDrive(d: Resource): Partial<Drive> {
  const place = d.PhysicalLocation?.PartLocation;
  const ordinal = place?.LocationOrdinalValue;
  const left = d.PredictedMediaLifeLeftPercent;
  const media =
    d.Protocol === "NVMe"
      ? ("nvme" as const)
      : d.MediaType === "HDD"
        ? ("spinning" as const)
        : d.MediaType === "SSD"
          ? ("flash" as const)
          : undefined;
  const health = {
    ...(typeof d.FailurePredicted === "boolean" && { passed: !d.FailurePredicted }),
    ...(typeof left === "number" && { wearPercent: Math.max(0, 100 - left) }),
    ...(d.Status?.Health &&
      d.Status.Health !== "OK" && { warnings: [`the controller reports its health as ${d.Status.Health}`] }),
  };
  return {
    serial: cleanText(d.SerialNumber),
    wwn: wwnOf(d),
    model: cleanText(d.Model),
    maker: cleanText(d.Manufacturer),
    firmware: cleanText(d.Revision),
    sizeBytes: plausibleBytes(d.CapacityBytes) ?? undefined,
    logicalSectorBytes: wholeNumber(d.BlockSizeBytes),
    media,
    rotationRpm: wholeNumber(d.RotationSpeedRPM) || null,
    bay:
      cleanPlace(place?.ServiceLabel)?.replace(/^bay\s+/i, "") ??
      (typeof ordinal === "number" ? String(ordinal) : null),
    controller: /\/Storage\/([^/]+)\//.exec(d["@odata.id"] ?? "")?.[1] ?? null,
    ...(Object.keys(health).length > 0 && { health }),
  };
}

/** What is under way on a volume; a controller tells no time. */
function progressOf({ Operations }: Resource): NonNullable<Observed["sets"]>[number]["progress"] {
  const under = (Operations ?? []).find((o) => typeof o.PercentageComplete === "number");
  return under
    ? {
        what: cleanText(under.OperationName) ?? "an operation",
        percent: under.PercentageComplete!,
        secondsLeft: null,
      }
    : null;
}

const HEALTH = { OK: "good", Warning: "degraded", Critical: "failed" } as const;

/** A volume, with the drives that it is made of. */
export function toSet(v: Resource, all: Resource[]): NonNullable<Observed["sets"]>[number] {
  const name = cleanText(v.Name) ?? cleanText(v.Id) ?? "volume";
  const health = own(HEALTH, v.Status?.Health ?? "") ?? "unknown";
  return {
    id: `virtual drive ${name}`,
    kind: "virtual drive",
    name,
    level: cleanText(v.RAIDType),
    state: cleanText(v.Status?.State ?? v.Status?.Health) ?? "not reported",
    health,
    sizeBytes: plausibleBytes(v.CapacityBytes),
    wwn: wwnOf(v),
    progress: progressOf(v),
    members: (v.Links?.Drives ?? []).map((link) => {
      const drive = all.find((r) => r["@odata.id"] === link["@odata.id"]);
      return {
        name: lastPart(link["@odata.id"]),
        drive: cleanText(drive?.SerialNumber),
        role: "member" as const,
        group: null,
        state: cleanText(drive?.Status?.Health) ?? "listed",
      };
    }),
  };
}
