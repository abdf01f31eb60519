import { evidence, hit } from "../../finding";
import {
  contentWords,
  driveLook,
  driveName,
  factsOf,
  holdsData,
  isUnread,
  judgeDrive,
  sourceWords,
  type Drive,
} from "../../machine";
import { consentFor, type StorageGround } from "../ground";
import { identityOf } from "../guard";
import { seatsOf, setName, type PlannedSet } from "../sets";
import { consentFacts } from "./consent";
import { eachDrive, SETS } from "./set-rule";
import type { StorageRule } from "./rule";

/** The controller that a drive hangs on, as far as it was read. */
const controllerOf = (ground: StorageGround, drive: Drive) =>
  factsOf(ground)?.storageControllers.find((c) => c.id === drive.controller) ?? null;

/** What keeps a controller from making a set of this drive. */
function lacksController(ground: StorageGround, set: PlannedSet, drive: Drive) {
  const controller = controllerOf(ground, drive);
  if (!controller) return "none";
  if (["host adapter", "pass-through", "plain"].includes(controller.mode)) return "passes through";
  const [first] = seatsOf(ground, set);
  return first && first.drive.controller !== drive.controller ? "two" : null;
}

/** What a consent protects is not set aside. */
const erasing = (ground: StorageGround, set: PlannedSet, drive: Drive) => ({
  severity: consentFor(ground, drive)?.holds ? ("caution" as const) : ("stop" as const),
  told: { drive: driveLook(drive), set: setName(set), ...consentFacts(ground, drive) },
  protectsData: !consentFor(ground, drive)?.holds,
});

/** Rules about each drive that a pool, array or virtual drive is made of. */
export const SET_DRIVE_CHECKS: readonly StorageRule[] = [
  eachDrive("storage.set-erases", (ground, set, drive) => {
    if (!holdsData(drive) || set.later !== null) return null;
    const { severity, told, protectsData } = erasing(ground, set, drive);
    const holds = contentWords(drive);
    return {
      ...hit(
        severity,
        SETS,
        { ...told, holds },
        evidence("drive contents", holds, sourceWords(ground, `drives.${drive.id}.contents`)),
        evidence("planned", setName(set), "this sheet"),
      ),
      protectsData,
    };
  }),

  eachDrive("storage.set-unread", (ground, set, drive) => {
    if (!isUnread(drive) || set.later !== null) return null;
    const { severity, told, protectsData } = erasing(ground, set, drive);
    return {
      ...hit(
        severity,
        SETS,
        told,
        evidence("drive contents", "not collected", "no output of lsblk or blkid was imported"),
        evidence("planned", setName(set), "this sheet"),
      ),
      protectsData,
    };
  }),

  eachDrive("storage.set-letter", (ground, set, drive) =>
    identityOf(drive) === "letter"
      ? {
          ...hit(
            "stop",
            SETS,
            { set: setName(set), drive: driveLook(drive), letter: drive.seenAs },
            evidence(
              "serial number and WWN",
              "none reported",
              sourceWords(ground, `drives.${drive.id}.seenAs`),
            ),
          ),
          protectsData: true,
        }
      : null,
  ),

  eachDrive("storage.set-failing", (ground, set, drive) => {
    const { verdict, reasons } = judgeDrive(drive);
    return verdict === "failing"
      ? hit(
          "stop",
          SETS,
          { set: setName(set), drive: driveName(drive), reasons: reasons.join("; ") },
          ...reasons.map((r) => evidence("health", r, sourceWords(ground, `drives.${drive.id}.health`))),
        )
      : null;
  }),

  eachDrive("storage.set-hidden", (ground, set, drive) => {
    if (set.keeper !== "ZFS") return null;
    const controller = controllerOf(ground, drive);
    const how = drive.presentedBy !== null ? "virtual" : controller?.mode === "RAID" ? "raid" : null;
    return how
      ? hit(
          "stop",
          SETS,
          { set: setName(set), drive: driveName(drive), how },
          evidence(
            "presented by",
            drive.presentedBy ?? `${controller?.name}, ${controller?.mode}`,
            sourceWords(ground, `drives.${drive.id}.model`),
          ),
        )
      : null;
  }),

  eachDrive("storage.set-plain", (ground, set, drive) => {
    if (set.keeper !== "RAID controller") return null;
    const how = lacksController(ground, set, drive);
    return how
      ? hit(
          how === "none" ? "caution" : "stop",
          SETS,
          { set: setName(set), drive: driveName(drive), how },
          evidence("attached to", controllerOf(ground, drive)?.name ?? "not collected", "last import"),
        )
      : null;
  }),

  eachDrive("storage.set-flash", (ground, set, drive) =>
    drive.removable || drive.media === "usb" || drive.media === "card"
      ? hit(
          "caution",
          SETS,
          { set: setName(set), drive: driveLook(drive), media: drive.media === "card" ? "card" : "stick" },
          evidence("media", drive.media, sourceWords(ground, `drives.${drive.id}.media`)),
        )
      : null,
  ),

  eachDrive("storage.set-shingled", (ground, set, drive) => {
    if (!drive.shingled) return null;
    const isManaged = drive.shingled === "host-managed";
    return hit(
      isManaged ? "stop" : "caution",
      SETS,
      { set: setName(set), drive: driveLook(drive), how: isManaged ? "managed" : "aware" },
      evidence("zones", drive.shingled, sourceWords(ground, `drives.${drive.id}.shingled`)),
    );
  }),

  eachDrive("storage.set-san", (ground, set, drive) =>
    drive.san
      ? hit(
          "caution",
          SETS,
          { set: setName(set), drive: driveLook(drive), san: drive.san },
          evidence("reached over", drive.san, sourceWords(ground, `drives.${drive.id}.san`)),
        )
      : null,
  ),
];
