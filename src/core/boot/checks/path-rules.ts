import { evidence, hit } from "../../finding";
import type { BootGround } from "../ground";
import { momentSubject, systemAt, type MomentView, type Verdict } from "../picture";
import type { ReasonCode } from "../resolve";
import { rule, type BootRule } from "./rule";

/** Why a medium is passed over, where a rule about the medium itself says so already. */
const SAID_ELSEWHERE: readonly (ReasonCode | null)[] = [
  ...([
    "no fallback loader",
    "no UEFI image",
    "no signature",
    "UEFI image only",
    "not signed",
    "no catalogue",
    "device hidden",
  ] as const),
];

const momentOf = ({ boot }: BootGround, moment: MomentView["moment"]): MomentView | undefined =>
  boot?.moments.find((m) => m.moment === moment);

/** The moments after the installation that the plan can still change. */
const AFTER = ["first restart", "power loss"] as const;

/** The first moment after the installation that comes to something; media that stay first have a rule of their own. */
function firstWith(
  ground: BootGround,
  verdict: Verdict,
): { at: (typeof AFTER)[number]; view: MomentView } | null {
  const isFirst = ground.sheet.boot.start === "media first in the boot order";
  for (const at of AFTER) {
    const view = momentOf(ground, at);
    if (view?.verdict === verdict && !(isFirst && verdict === "installer again")) return { at, view };
  }
  return null;
}

/** Every try as evidence: what the firmware does, one after the other. */
const tries = ({ tries: all, ends }: MomentView) => [
  ...all
    .slice(0, 6)
    .map((t) => evidence(t.name, t.why ?? ends, t.via === "once" ? "one-time choice" : "boot order")),
];

const lastWhy = ({ tries: all }: MomentView): string => all.findLast((t) => t.why)?.why ?? "";

/** Rules about where the path of the start ends. */
export const pathRules: readonly BootRule[] = [
  rule("boot.medium-passed", (ground) => {
    const view = momentOf(ground, "to install");
    if (view?.verdict !== "medium not started" || !ground.image) return null;
    const tried = view.tries.find((t) => t.via === "once") ?? view.tries[0];
    if (tried && SAID_ELSEWHERE.includes(tried.reason)) return null;
    return hit("stop", "boot.start", { ends: view.ends, why: tried?.why ?? "" }, ...tries(view));
  }),

  rule("boot.installer-again", (ground) => {
    const found = firstWith(ground, "installer again");
    return (
      found &&
      hit(
        "stop",
        "boot.start",
        { moment: momentSubject(found.at), ends: found.view.ends },
        ...tries(found.view),
      )
    );
  }),

  rule("boot.other-system", (ground) => {
    const found = firstWith(ground, "another system");
    if (!found) return null;
    const { at, view } = found;
    return hit(
      "stop",
      "boot.start",
      { moment: momentSubject(at), ends: view.ends, wanted: systemAt(ground, at) },
      ...tries(view),
    );
  }),

  rule("boot.nowhere", (ground) => {
    const found = firstWith(ground, "nowhere");
    if (!found || !ground.sheet.storage.target) return null;
    const { at, view } = found;
    return hit(
      "stop",
      "boot.start",
      { moment: momentSubject(at), ends: view.ends, why: lastWhy(view) },
      ...tries(view),
    );
  }),

  rule("boot.depends", (ground) => {
    for (const at of AFTER) {
      const view = momentOf(ground, at);
      const other = view?.depends.find((d) => d.verdict !== "as wanted" && !d.isFirmware);
      if (view?.verdict === "as wanted" && other)
        return hit(
          "caution",
          "boot.start",
          { moment: momentSubject(at), ends: view.ends, on: other.on, otherwise: other.otherwise },
          evidence(view.ends, other.on, "not collected"),
        );
    }
    return null;
  }),
];
