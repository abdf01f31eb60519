import type { Path } from "../document";
import { said, type Stage } from "../stage";
import type { HandOverGround } from "./ground";
import { HANDOVER_MESSAGES } from "./messages.en";
import { HANDOVER_CHECKS } from "./rules";
import { handOverSlice, type HandOverSlice } from "./slice";

function summary({ sheet }: HandOverGround) {
  const { owner, evaluationEnds } = sheet.handOver;
  return said(
    owner ? `To ${owner}${evaluationEnds ? `; evaluation ends ${evaluationEnds}` : ""}` : "Owner missing",
  );
}

/** Stage K: who gets the machine, and under what. */
export const handOverStage = {
  zone: "K",
  title: "Hand over",
  slice: { handOver: handOverSlice.prefault({}) },
  names: {
    "handOver.licence": "licence",
    "handOver.evaluationEnds": "evaluation ends",
    "handOver.owner": "owner",
    "handOver.notes": "on-call notes",
  },
  checks: HANDOVER_CHECKS,
  messages: HANDOVER_MESSAGES,
  summary,
  values: () => ({}),
} satisfies Stage<HandOverGround, Path<{ handOver: HandOverSlice }>>;
