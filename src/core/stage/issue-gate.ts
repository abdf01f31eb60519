import { evidence, hit, message, rulesOver, type Gate } from "../finding";
import type { IssuedGround } from "./start-gate";

/** What issuing a revision looks at: open blockers do not prevent it, since a revision may be issued for discussion. */
export type IssueGround = Pick<IssuedGround, "revision" | "isIssued">;

const ISSUE_MESSAGES = {
  "issue.unchanged": message(
    "Nothing to issue",
    "Nothing has changed since revision {revision}.",
    "Use that revision, or change the sheet first.",
    "Two letters for one content would make readers look for a difference that is not there.",
  ),
} as const;

const issue = rulesOver<IssueGround, "revision">()("H", ISSUE_MESSAGES);

/** Before a revision is issued. */
export const ISSUE_GATE: Gate<IssueGround> = {
  title: "Issue a revision",
  checks: [
    issue("issue.unchanged", ({ revision, isIssued }) =>
      revision !== null && isIssued
        ? hit("stop", "revision", { revision }, evidence("last revision", revision, "build sheet"))
        : null,
    ),
  ],
  messages: ISSUE_MESSAGES,
};
