import type { Path } from "../document";
import { mediumWords, stickOf, wayOf } from "../media";
import { modeWords } from "../work";
import { said, type Stage } from "../stage";
import { BOOT_CHECKS, BOOT_MESSAGES } from "./checks";
import type { BootGround } from "./ground";
import { bootSlice, type BootSlice } from "./slice";

function summary(ground: BootGround) {
  const { mode, start } = ground.sheet.boot;
  if (!ground.fromMedia) return said("No boot from media; the machine restarts as it does now");
  const way = wayOf(ground);
  const media = way === "stick" ? stickOf(ground).name || "USB stick (no name)" : mediumWords[way];
  const order =
    start === "one-time boot" ? `${media} once, then the target` : "media first in the permanent boot order";
  return said(`${modeWords(mode)}, ${order}`);
}

/** Stage C: how the machine starts for the installation, and from what. */
export const bootStage = {
  zone: "C",
  title: "Boot",
  slice: { boot: bootSlice.prefault({}) },
  names: {
    "boot.mode": "boot mode",
    "boot.start": "media boot",
    "boot.secureBoot": "Secure Boot",
    "boot.order": "permanent boot order",
    "boot.settings": "firmware settings",
    "boot.worth.failuresPerYear": "annual failure rate of a boot device",
    "boot.worth.dayPrice": "downtime cost per day",
    "boot.worth.devicePrice": "price of a second boot device",
    "boot.worth.replacedWithinDays": "replacement time of a boot device, days",
    "boot.cards.name": "name of the card mirror",
    "boot.cards.primary": "primary card",
    "boot.cards.removable": "reported as removable",
    "boot.cards.readings": "readings of the card mirror",
    "boot.menuKey": "menu key",
  },
  checks: BOOT_CHECKS,
  messages: BOOT_MESSAGES,
  summary,
  values: ({ sheet }) => ({ "boot.mode": modeWords(sheet.boot.mode) }),
} satisfies Stage<BootGround, Path<{ boot: BootSlice }>>;
