import { message } from "../finding";

/** The words of the rules about the hand-over; {facts} come from the hit. */
export const HANDOVER_MESSAGES = {
  "handover.evaluation": message(
    "Evaluation without a date",
    "Without a licence {profile} runs {days} days; installed today, the last one is {last}.",
    "Note the last day, or that it is licensed.",
    "On the day after, guests do not start again.",
  ),
  "handover.evaluation-over": message(
    "Evaluation is over",
    "The evaluation ended on {ended}.",
    "Enter the licence or correct the date.",
    "It ran out while nobody looked.",
  ),
  "handover.owner": message(
    "No owner",
    "Nobody is named to whom the machine is handed over.",
    "Name the person or team.",
    "A machine without an owner gets no updates.",
  ),
};
