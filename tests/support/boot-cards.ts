import type { Facts } from "@/core/machine";
import { aDrive, NOW, type BuildChanges } from "./builds";

const MODULE = {
  id: "BOOT.1",
  name: "module",
  mode: "boot module" as const,
  firmware: null,
  driver: null,
  health: null,
};
const RAID = { ...MODULE, id: "5e:00.0", name: "array controller", mode: "RAID" as const };

/** A module with so many cards, and drives of a RAID controller beside it. */
export function withCards(cards: number, more: Partial<Facts["sets"][number]> = {}): BuildChanges {
  const members = Array.from({ length: cards }, (_, n) => ({
    ...{ name: `card ${n + 1}`, drive: null, role: "member" as const, group: null, state: "OK" },
  }));
  const set = {
    id: "virtual drive CARDS",
    kind: "virtual drive" as const,
    name: "CARDS",
    level: null,
    state: "whole",
  };
  return {
    drives: [
      aDrive("NV-0001", { media: "card", bay: "boot module", presentedBy: "CARDS", controller: "BOOT.1" }),
      ...["0", "1"].map((bay) => aDrive(`SP-${bay}`, { media: "spinning", bay, controller: RAID.id })),
    ],
    document: { sources: { "sets.virtual drive CARDS": { tool: "redfish", from: "module.json", at: NOW } } },
    facts: {
      storageControllers: [MODULE, RAID],
      sets: [
        {
          ...set,
          health: "good",
          sizeBytes: 64e9,
          wwn: null,
          members,
          progress: null,
          remark: null,
          ...more,
        },
      ],
    },
  };
}

/** A mirror of two cards that is being made, read at the test's own time. */
export const syncing = (percent: number, secondsLeft: number | null = null): BuildChanges =>
  withCards(2, {
    ...{ state: "degraded: syncing", health: "degraded" },
    progress: { what: "sync", percent, secondsLeft },
  });

/** A mirror that has lost a card. */
export const degradedCards: BuildChanges = withCards(2, { state: "degraded", health: "degraded" });

/** A target that a RAID controller shows to nobody, beside a drive that was seen. */
export const hiddenTarget: BuildChanges = {
  drives: [aDrive("NV-0001", { seenAs: "?", controller: RAID.id }), aDrive("SA-9", { sizeBytes: 9e11 })],
  facts: { storageControllers: [RAID] },
  sheet: { "storage.leaveAlone": ["SA-9"] },
};
