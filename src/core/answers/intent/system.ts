import {
  accountNameProblem,
  domainProblem,
  hostNameProblem,
  isHash,
  publicKeyLine,
  readPublicKey,
  type Account,
} from "../../identity";
import { unseenTexts } from "../../document";
import { editionProblem } from "../edition";
import { commandsOf } from "../parameters";
import { softwareProblems } from "../software";
import type { Drawn, Gap, Hashes, IntentAccount, IntentGround, IntentPath, SystemIntent } from "./shapes";

const LOCALE = /^[a-z]{2,3}(?:_[A-Z]{2})?(?:\.[A-Za-z0-9-]+)?(?:@[a-z]+)?$/;
const ZONE = /^[A-Za-z][A-Za-z0-9+_-]*(?:\/[A-Za-z0-9+_-]+){0,2}$/;
const LAYOUT = /^[a-z][a-z0-9-]{1,30}$/;

/** Answers that an installer asks for, each with what may stand in it. */
function answerGaps(ground: IntentGround, hashes: Hashes): Gap[] {
  const { profile } = ground;
  const { answers } = ground.sheet;
  const gap = (path: IntentPath, message: string | null): Gap[] =>
    message === null ? [] : [{ path, message }];
  return [
    ...gap("answers.hostName", hostNameProblem(answers.hostName)),
    ...gap("answers.domain", answers.domain === "" ? null : domainProblem(answers.domain)),
    ...gap(
      "answers.keyboard",
      LAYOUT.test(answers.keyboard) ? null : "keyboard layout missing or not supported",
    ),
    ...gap("answers.locale", LOCALE.test(answers.locale) ? null : "locale missing, for example en_GB.UTF-8"),
    ...gap(
      "answers.timeZone",
      ZONE.test(answers.timeZone) ? null : "time zone missing, for example Europe/London",
    ),
    ...gap("answers.edition", editionProblem(answers.edition, profile)),
    ...softwareProblems(answers).map(({ path, message }): Gap => ({ path: `answers.${path}`, message })),
    ...(["finish", "firstStart"] as const).flatMap((which) =>
      commandsOf(ground, which, hashes).problems.flatMap((problem) => gap(`answers.${which}`, problem)),
    ),
    ...answers.accounts.flatMap(({ name, keys }) => {
      const of = (problem: string | null) =>
        gap("answers.accounts", problem && `the account "${name.slice(0, 40)}": ${problem}`);
      return [
        ...of(accountNameProblem(name)),
        ...keys.flatMap(({ line }) => {
          const key = readPublicKey(line);
          return key.ok ? [] : of(key.problems[0]?.message ?? null);
        }),
      ];
    }),
  ];
}

const accountOf = ({ name, role, logIn, keys }: Account, hashes: Hashes): IntentAccount => {
  const hash = hashes.get(name) ?? null;
  return {
    ...{ name, role, logIn, hash: hash !== null && isHash(hash) ? hash : null },
    // A service has no shell: a key would open nothing.
    keys: (role === "service" ? [] : keys).flatMap(({ line }) => {
      const key = readPublicKey(line);
      return key.ok ? [publicKeyLine(key.value)] : [];
    }),
  };
};

/** Draws names, keyboard, language, time zone and accounts from a build. */
export function systemIntent(ground: IntentGround, hashes: Hashes): Drawn<SystemIntent> {
  const { sheet, profile } = ground;
  const { answers } = sheet;
  const gaps = answerGaps(ground, hashes);
  // Comments of a file name the family, and a line of its own would be none of them.
  if (profile && unseenTexts([profile.name, profile.version, profile.accounts]).length > 0)
    gaps.push({
      path: "image.id",
      message: "the name of the operating system is not one line of plain text",
    });
  if (!profile) gaps.unshift({ path: "image.id", message: "the OS family is unknown" });
  if (gaps.length > 0 || !profile) return { ok: false, gaps };
  return {
    ok: true,
    intent: {
      system: {
        ...{ profile: profile.profile, name: profile.name, version: profile.version },
        screen: profile.installer,
        adminGroup: profile.accounts.adminGroup,
        superUser: profile.accounts.superUser,
      },
      ...{ hostName: answers.hostName, domain: answers.domain, keyboard: answers.keyboard },
      ...{ locale: answers.locale, timeZone: answers.timeZone },
      software: {
        ...{ source: answers.source, proxy: answers.proxy },
        ...{ components: answers.components, services: answers.services },
        finish: commandsOf(ground, "finish", hashes).commands,
        firstStart: commandsOf(ground, "firstStart", hashes).commands,
      },
      edition: answers.edition,
      accounts: answers.accounts.map((account) => accountOf(account, hashes)),
    },
  };
}
