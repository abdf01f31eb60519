import { evidence, hit } from "../../finding";
import { formatDateTime } from "../../units";
import type { BootGround } from "../ground";
import { rule, type BootRule } from "./rule";

const SOURCE = "boot entries";

/** Settings of which another rule speaks, with more of the reason. */
const SPOKEN_OF: readonly string[] = ["mode", "virtualisation", "iommu"];

/** A time as the clocks of the site show it. */
const time = (iso: string, site: BootGround["site"]): string => formatDateTime(iso, site?.timeZone ?? "UTC");

/** Rules about the boot device, and the list and the settings of the firmware. */
export const entryRules: readonly BootRule[] = [
  rule("boot.stale-entries", ({ boot }) => {
    const stale = (boot?.entries ?? []).filter((e) => e.owner === "nobody: stale");
    if (stale.length === 0) return null;
    return hit(
      "note",
      "boot.start",
      { entries: stale.map((e) => `"${e.label}" (${e.id})`).join(", ") },
      ...stale.slice(0, 6).map((e) => evidence(`entry ${e.id}`, e.label, SOURCE)),
    );
  }),

  rule("boot.single-card", ({ boot }) => {
    const chosen = boot?.schools.find((s) => s.isChosen);
    if (chosen?.school !== "one card") return null;
    return hit("caution", "boot.start", {}, evidence("boot device", chosen.here, "target of this sheet"));
  }),

  rule("boot.cards-overdue", ({ boot, site }) => {
    const cards = boot?.cards;
    if (!cards?.mirror || cards.sync?.stands !== "overdue") return null;
    const { readings, from } = cards.sync;
    return hit(
      cards.isTarget ? "stop" : "caution",
      "boot.cards.readings",
      { percent: String(readings.at(-1)!.percent), mirror: cards.mirror.name },
      evidence("last reading", `${readings.at(-1)!.percent} %`, time(readings.at(-1)!.at, site)),
      evidence("should be complete", time(cards.sync.lateAt ?? cards.sync.endsAt ?? "", site), from),
    );
  }),

  rule("boot.cards-degraded", ({ boot }) => {
    const cards = boot?.cards;
    if (!cards?.mirror || cards.mirror.isWhole || cards.sync) return null;
    return hit(
      cards.isTarget ? "stop" : "caution",
      "boot.cards.readings",
      { state: cards.mirror.state, mirror: cards.mirror.name },
      evidence(cards.mirror.name, cards.mirror.state, "boot module"),
    );
  }),

  rule("boot.cards-syncing", ({ boot, site }) => {
    const cards = boot?.cards;
    if (!cards?.isTarget || !cards.mirror || !cards.sync || cards.sync.stands === "overdue") return null;
    const isKnown = cards.sync.stands === "under way";
    const { readings, endsAt, from } = cards.sync;
    return hit(
      isKnown ? "note" : "caution",
      "boot.cards.readings",
      {
        percent: String(readings.at(-1)!.percent),
        state: cards.mirror.state,
        end: isKnown ? "known" : "unknown",
      },
      evidence("last reading", `${readings.at(-1)!.percent} %`, time(readings.at(-1)!.at, site)),
      evidence("whole", endsAt ? time(endsAt, site) : "unknown", from),
    );
  }),

  rule("boot.external", ({ boot }) => {
    const chosen = boot?.schools.find((s) => s.isChosen);
    if (chosen?.school !== "external drive") return null;
    return hit("caution", "boot.start", {}, evidence("boot device", chosen.here, "target of this sheet"));
  }),

  rule("boot.setting-differs", ({ boot }) => {
    const other = (boot?.settings ?? []).filter(
      (s) => s.isAsWanted === false && s.done === "" && !SPOKEN_OF.includes(s.key),
    );
    if (other.length === 0) return null;
    return hit(
      "note",
      "boot.settings",
      { settings: other.map((s) => `${s.title} is ${s.found?.value}, planned ${s.value}`).join("; ") },
      ...other.map((s) => evidence(s.title, s.found?.value ?? "", s.found?.from ?? "")),
    );
  }),

  rule("boot.site-setting", ({ boot, site }) => {
    const against = (boot?.settings ?? []).filter((s) => s.siteWants !== undefined);
    if (against.length === 0) return null;
    return hit(
      "caution",
      "boot.settings",
      { settings: against.map((s) => `${s.title} ${s.value}, site policy ${s.siteWants}`).join("; ") },
      ...against.flatMap((s) => [
        evidence(s.title, s.value, s.why),
        evidence(s.title, s.siteWants ?? "", site?.name ?? "the site"),
      ]),
    );
  }),

  rule("boot.cannot-set", ({ boot }) => {
    const missing = (boot?.settings ?? []).filter((s) => s.done === "cannot be set" && s.isAsWanted !== true);
    if (missing.length === 0) return null;
    return hit(
      "caution",
      "boot.settings",
      { settings: missing.map((s) => `${s.title} (planned ${s.value}: ${s.why})`).join("; ") },
      ...missing.map((s) => evidence(s.title, s.value, s.why)),
    );
  }),

  // Entries that lead to the very same may be called the same; what matters is two ends under one name.
  rule("boot.same-name", ({ boot }) => {
    const listed = (boot?.entries ?? []).filter((e) => e.active && e.owner !== "nobody: stale");
    const twice = listed.filter((e) =>
      listed.some((o) => o !== e && o.label === e.label && !e.twins.includes(o.id)),
    );
    if (twice.length === 0) return null;
    const names = [...new Set(twice.map((e) => `"${e.label}"`))].join(", ");
    return hit(
      "caution",
      "boot.start",
      { names },
      ...twice.slice(0, 6).map((e) => evidence(`entry ${e.id}`, e.device ?? "unknown", SOURCE)),
    );
  }),
];
