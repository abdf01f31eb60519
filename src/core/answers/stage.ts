import type { Path } from "../document";
import { open, said, type Stage } from "../stage";
import { ANSWERS_CHECKS, ANSWERS_MESSAGES } from "./checks";
import type { AnswersGround } from "./ground";
import { answersSlice, type AnswersSlice } from "./slice";

const fullName = ({ answers }: AnswersGround["sheet"]): string =>
  [answers.hostName, answers.domain].filter(Boolean).join(".");

function summary({ sheet }: AnswersGround) {
  const { hostName, accounts, keyboard } = sheet.answers;
  if (!hostName) return open("Set name and accounts");
  const names = accounts.map((a) => a.name).join(" and ") || "no account";
  return said(`${fullName(sheet)}, ${names}, ${keyboard || "keyboard layout missing"}`);
}

function values({ sheet }: AnswersGround) {
  const { answers } = sheet;
  const account = (role: string): string => answers.accounts.find((a) => a.role === role)?.name ?? "";
  return {
    "account.admin": account("administrator") || account("super-user"),
    "account.super": account("super-user") || "root",
    "account.where": answers.secretsKept,
    "edition.name": answers.edition,
    "host.domain": answers.domain,
    "host.fqdn": fullName(sheet),
    "host.name": answers.hostName,
    "keyboard.layout": answers.keyboard,
    "locale.name": answers.locale,
    "time.zone": answers.timeZone,
  };
}

/** Stage F: what the installer asks. */
export const answersStage = {
  zone: "F",
  title: "Answers",
  slice: { answers: answersSlice.prefault({}) },
  names: {
    "answers.hostName": "host name",
    "answers.domain": "domain",
    "answers.keyboard": "keyboard",
    "answers.locale": "locale",
    "answers.timeZone": "time zone",
    "answers.source": "package source",
    "answers.proxy": "proxy",
    "answers.components": "components",
    "answers.services": "services to enable at boot",
    "answers.edition": "edition",
    "answers.finish": "commands at the end of the installation",
    "answers.firstStart": "first-boot commands",
    "answers.parameters": "parameters",
    "answers.accounts": "accounts",
    "answers.secretsKept": "credential location",
  },
  checks: ANSWERS_CHECKS,
  messages: ANSWERS_MESSAGES,
  summary,
  values,
} satisfies Stage<AnswersGround, Path<{ answers: AnswersSlice }>>;
