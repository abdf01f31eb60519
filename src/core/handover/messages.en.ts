import { message } from "../finding";

/** The words of the rules about the hand-over; {facts} come from the hit. */
export const HANDOVER_MESSAGES = {
  "handover.evaluation": message(
    "Evaluation end date missing",
    "Without a licence {profile} runs {days} days; if installed today, the last day is {last}.",
    "Enter the last day of the evaluation, or that the system is licensed.",
    "After the evaluation, guests do not start.",
  ),
  "handover.evaluation-over": message(
    "Evaluation ended",
    "The evaluation ended on {ended}.",
    "Enter the licence, or correct the date.",
    "After the evaluation, guests do not start.",
  ),
  "handover.owner": message(
    "Owner missing",
    "No person or team is named to receive the machine.",
    "Enter the person or team.",
    "A machine without an owner gets no updates.",
  ),
};
