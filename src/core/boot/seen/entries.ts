import type { Facts } from "../../machine";
import { parseDevicePath } from "../path";
import type { BootEntry } from "../resolve";

/** The tag of entries that firmware of the reference code made by itself, as far as its bytes can be printed. */
const OWN_TAG = "N.....YM....R,Y.";
/** Programs of the firmware that stand in the list and are not for the order. */
const APPLICATION = /setup|set-up|uiapp|menu|diagnos|lifecycle/i;

type Read = NonNullable<NonNullable<Facts["firmware"]>["entries"]>[number];

/** An entry as a tool printed it. */
export function seenEntry({ id, label, active, path, kind }: Read): BootEntry {
  const parsed = parseDevicePath(path);
  return {
    ...{ id, label, active, path: parsed },
    application: kind === "firmware" && APPLICATION.test(label),
    own: parsed.data.includes(OWN_TAG),
  };
}
