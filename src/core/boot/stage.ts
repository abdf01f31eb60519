import type { Path } from "../document";
import { mediumWords, modeWords, stickOf, wayOf } from "../media";
import { said, type Stage } from "../stage";
import { BOOT_CHECKS, BOOT_MESSAGES } from "./checks";
import type { BootGround } from "./ground";
import { bootSlice, type BootSlice } from "./slice";

function summary(ground: BootGround) {
  const { mode, start } = ground.sheet.boot;
  if (!ground.fromMedia) return said("Nothing is started from media; the machine restarts as it does now");
  const way = wayOf(ground);
  const media = way === "stick" ? stickOf(ground).name || "a stick (not named)" : mediumWords[way];
  const order = start === "one-time boot" ? `${media} once, then the target` : "media first for good";
  return said(`${modeWords(mode)}, ${order}`);
}

/** Stage C: how the machine starts for the installation, and from what. */
export const bootStage = {
  zone: "C",
  title: "Boot",
  slice: { boot: bootSlice.prefault({}) },
  names: {
    "boot.mode": "boot mode",
    "boot.start": "how the media starts",
    "boot.secureBoot": "secure boot",
    "boot.order": "permanent boot order",
    "boot.settings": "firmware settings",
    "boot.worth.failuresPerYear": "failures of a boot device in a year",
    "boot.worth.dayPrice": "price of a day without the machine",
    "boot.worth.devicePrice": "price of a second boot device",
    "boot.worth.replacedWithinDays": "days until a boot device is replaced",
    "boot.cards.name": "name of the card mirror",
    "boot.cards.primary": "primary card",
    "boot.cards.removable": "shown as removable",
    "boot.cards.readings": "readings of the card sync",
    "boot.menuKey": "menu key",
  },
  checks: BOOT_CHECKS,
  messages: BOOT_MESSAGES,
  summary,
  values: ({ sheet }) => ({ "boot.mode": modeWords(sheet.boot.mode) }),
} satisfies Stage<BootGround, Path<{ boot: BootSlice }>>;
