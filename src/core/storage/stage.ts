import type { Path } from "../document";
import { driveLook, type Drive } from "../machine";
import { open, said, type Stage } from "../stage";
import { STORAGE_CHECKS, STORAGE_MESSAGES } from "./checks";
import { targetOf, targetsOf, type StorageGround } from "./ground";
import { installerSize } from "./guard";
import { storageSlice, type StorageSlice } from "./slice";

/** The target without its serial, which the sheet may be asking for. */
function targetWords(ground: StorageGround, target: Drive): string {
  const { layout, partners } = ground.sheet.storage;
  if (partners.length === 0) return driveLook(target);
  const each = targetsOf(ground).map((t) => driveLook(t.drive) + (t.role === "spare" ? " (spare)" : ""));
  return `${layout} of ${each.join(" and ")}`;
}

function summary(ground: StorageGround) {
  const target = targetOf(ground);
  const kept = ground.sheet.storage.leaveAlone.length;
  return target
    ? said(
        `On ${targetWords(ground, target)}${kept > 0 ? `; ${kept} ${kept === 1 ? "drive" : "drives"} protected` : ""}`,
      )
    : open("Set target and protected drives");
}

/** None of them holds a character of the target's serial: that is what the guards ask for. */
function values(ground: StorageGround) {
  const members = targetsOf(ground)
    .filter((t) => t.role === "member")
    .map((t) => t.drive);
  const each = (word: (drive: Drive) => string): string => [...new Set(members.map(word))].join("; ");
  const { length } = members;
  return {
    "target.count": length === 1 ? "1 drive" : `${length} drives`,
    "target.layout": length > 1 ? `${ground.sheet.storage.layout} of ${length}` : "single drive",
    "target.model": each((d) => d.model ?? ""),
    "target.name": each(driveLook),
    "target.seenAs": targetOf(ground) ? `${each((d) => d.seenAs)} (at the last import)` : "",
    "target.size": each(installerSize),
  };
}

/** Stage D: the drives that are written, and those that must not be touched. */
export const storageStage = {
  zone: "D",
  title: "Storage",
  slice: { storage: storageSlice.prefault({}) },
  names: {
    "storage.target": "target drive",
    "storage.partners": "other drives of the target",
    "storage.layout": "layout",
    "storage.leaveAlone": "protected drives",
    "storage.free": "free drives",
    "storage.swap": "swap",
    "storage.sets": "additional arrays and pools",
    "storage.erase": "erase confirmation",
  },
  checks: STORAGE_CHECKS,
  messages: STORAGE_MESSAGES,
  summary,
  values,
} satisfies Stage<StorageGround, Path<{ storage: StorageSlice }>>;
