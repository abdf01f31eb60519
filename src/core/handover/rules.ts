import { evidence, hit, rulesOver, type Check } from "../finding";
import { profileName } from "../image";
import { dayAt } from "../site";
import { addSeconds } from "../units";
import type { Path } from "../document";
import type { HandOverGround } from "./ground";
import { HANDOVER_MESSAGES } from "./messages.en";

type At = Path<HandOverGround["sheet"]>;

const rule = rulesOver<HandOverGround, At>()("K", HANDOVER_MESSAGES);
const DAY = 86_400;

/** Rules about what is handed over, to whom, and until when. */
export const HANDOVER_CHECKS: readonly Check<HandOverGround, At>[] = [
  rule("handover.evaluation", (context) => {
    const days = context.profile?.evaluationDays;
    const { licence, evaluationEnds } = context.sheet.handOver;
    if (!days || licence === "licensed" || evaluationEnds !== null) return null;
    return hit(
      "caution",
      "handOver.evaluationEnds",
      {
        days: String(days),
        profile: profileName(context),
        last: dayAt(context.site, addSeconds(context.now, days * DAY)),
      },
      evidence("evaluation", `${days} days`, `OS profile ${profileName(context)}`),
      evidence("last day", "missing", "this sheet"),
    );
  }),

  rule("handover.evaluation-over", (context) => {
    const { sheet } = context;
    return sheet.handOver.evaluationEnds !== null &&
      sheet.handOver.evaluationEnds < context.today &&
      sheet.handOver.licence !== "licensed"
      ? hit(
          "caution",
          "handOver.evaluationEnds",
          { ended: sheet.handOver.evaluationEnds },
          evidence("ended", sheet.handOver.evaluationEnds, "this sheet"),
          evidence("today", context.today, "clock of the server, in the time zone of the site"),
        )
      : null;
  }),

  rule("handover.owner", ({ sheet }) =>
    sheet.handOver.owner.trim() === "" ? hit("note", "handOver.owner", {}) : null,
  ),
];
