import { term } from "../../text";
import { evidence, hit } from "../../finding";
import {
  accountNameProblem,
  domainProblem,
  fitsPattern,
  hostNameProblem,
  isTimeZone,
  layouts,
  movedCharacters,
  patternOf,
  readPublicKey,
} from "../../identity";
import { profileName } from "../../image";
import { isPrivateName } from "../../network";
import type { AnswersGround } from "../ground";
import { editionProblem } from "../edition";
import { softwareProblems } from "../software";
import { COMMAND_CHECKS } from "./commands";
import { rule, type AnswersRule } from "./rule";

const SOFTWARE = {
  source: "package source",
  proxy: "proxy",
  components: "components",
  services: "services",
  finish: "commands at the end of the installation",
  firstStart: "first-boot commands",
} as const;

const roleOf = (machine: AnswersGround["machine"]): string | null => machine?.document.typed.role ?? null;

/** Names that are kept apart so that nothing is ever found under them (RFC 6761), and no host can be. */
const NOWHERE = /(^|\.)(invalid|localhost)$/i;

/** What is wrong with a domain that is neither the site's nor kept apart for private use. */
function foreignState(
  domain: string,
  hostName: string,
): "nowhere" | "multicast" | "one word" | "invented" | "foreign" {
  const labels = domain.toLowerCase().split(".");
  if (NOWHERE.test(domain)) return "nowhere";
  if (labels.at(-1) === "local") return "multicast";
  if (labels.length === 1) return "one word";
  return labels.length === 2 && labels[0] === hostName.toLowerCase() ? "invented" : "foreign";
}

/** Rules about names, accounts and the answers to the installer. */
export const ANSWERS_CHECKS: readonly AnswersRule[] = [
  rule("answers.host-name", ({ sheet }) => {
    const problem = hostNameProblem(sheet.answers.hostName);
    return problem
      ? hit(
          "stop",
          "answers.hostName",
          { name: sheet.answers.hostName || "(empty)", problem },
          evidence("host name", sheet.answers.hostName || "empty", "this sheet"),
        )
      : null;
  }),

  rule("answers.name-taken", ({ sheet, rivals }) => {
    const { hostName, domain } = sheet.answers;
    const name = hostName.toLowerCase();
    const full = `${name}.${domain.toLowerCase()}`;
    // At another site a short name is another machine's own; only a full name is the same everywhere.
    const rival =
      name === ""
        ? undefined
        : rivals.find((r) => r.kind === "name" && (r.key === full || (r.here && r.key === name)));
    return rival
      ? hit(
          "stop",
          "answers.hostName",
          { name, owner: rival.owner },
          evidence("this build", name, "this sheet"),
          evidence(rival.owner, name, "the same name"),
        )
      : null;
  }),

  rule("answers.name-pattern", ({ sheet, site, machine }) => {
    const { hostName } = sheet.answers;
    const pattern = patternOf(site?.naming ?? [], roleOf(machine));
    if (!site || pattern === null || hostNameProblem(hostName) !== null || fitsPattern(pattern, hostName))
      return null;
    return hit(
      "note",
      "answers.hostName",
      { name: hostName, pattern },
      evidence("this build", hostName, "this sheet"),
      evidence(`names for ${term(roleOf(machine) ?? "all machines")}`, pattern, site.name),
    );
  }),

  rule("answers.name-stays", (context) => {
    const { sheet, profile, site, machine } = context;
    const { hostName } = sheet.answers;
    if (!profile?.suits.includes("hypervisor") || hostNameProblem(hostName) !== null) return null;
    if (patternOf(site?.naming ?? [], roleOf(machine)) !== null) return null;
    return hit(
      "note",
      "answers.hostName",
      { name: hostName, profile: profileName(context) },
      evidence("names of this site", "no pattern", site?.name ?? "no site"),
    );
  }),

  rule("answers.domain", ({ sheet, profile, site }) => {
    const { domain, hostName } = sheet.answers;
    if (domain === "") {
      const wish = profile?.hostName.domain;
      return !wish || wish === "not used"
        ? null
        : hit(wish === "required" ? "stop" : "caution", "answers.domain", {
            state: wish === "required" ? "required" : "wanted",
            profile: profile.name,
          });
    }
    const problem = domainProblem(domain);
    if (problem)
      return hit(
        "stop",
        "answers.domain",
        { state: "wrong", problem },
        evidence("domain", domain, "this sheet"),
      );
    const own = site && site.domain !== "" && (domain === site.domain || domain.endsWith(`.${site.domain}`));
    if (own || (isPrivateName(domain) && !NOWHERE.test(domain))) return null;
    return hit(
      "caution",
      "answers.domain",
      { state: foreignState(domain, hostName), domain },
      evidence("domain", domain, "this sheet"),
      evidence("domain of the site", site?.domain || "not set", site?.name ?? "site"),
    );
  }),

  rule("answers.no-account", (context) => {
    const { accounts } = context.sheet.answers;
    if (!context.profile || accounts.some((a) => a.role === "super-user" || a.role === "administrator"))
      return null;
    return hit(
      "stop",
      "answers.accounts",
      { profile: profileName(context) },
      evidence("accounts", String(accounts.length), "this sheet"),
    );
  }),

  rule("answers.account-name", ({ sheet, profile }) =>
    sheet.answers.accounts.flatMap((account) => {
      const reserved = account.role !== "super-user" && profile?.accounts.reserved.includes(account.name);
      const problem =
        accountNameProblem(account.name) ?? (reserved ? `${profile?.name} reserves this name` : null);
      return problem
        ? {
            ...hit(
              "stop",
              "answers.accounts",
              { name: account.name || "(empty)", problem },
              evidence("account", account.name || "empty", "this sheet"),
            ),
            subject: account.name,
          }
        : [];
    }),
  ),

  rule("answers.two-doors", ({ sheet }) => {
    const byPassword = (role: string): string | undefined =>
      sheet.answers.accounts.find((a) => a.role === role && a.logIn === "password")?.name;
    const [superUser, admin] = [byPassword("super-user"), byPassword("administrator")];
    return superUser && admin
      ? hit(
          "caution",
          "answers.accounts",
          { superUser, admin },
          evidence(superUser, "password login", "this sheet"),
          evidence(admin, "password login", "this sheet"),
        )
      : null;
  }),

  rule("answers.administrator", (context) => {
    const wanted = context.profile?.accounts.needsAdministrator ?? false;
    const { accounts } = context.sheet.answers;
    if (!wanted || accounts.length === 0 || accounts.some((a) => a.role === "administrator")) return null;
    return hit(
      "caution",
      "answers.accounts",
      { profile: profileName(context) },
      evidence("administrators", "none", "this sheet"),
    );
  }),

  rule("answers.secrets", ({ sheet }) =>
    sheet.answers.accounts.some((a) => a.logIn === "password") && sheet.answers.secretsKept.trim() === ""
      ? hit(
          "note",
          "answers.secretsKept",
          {},
          evidence(
            "accounts with a password",
            String(sheet.answers.accounts.filter((a) => a.logIn === "password").length),
            "this sheet",
          ),
        )
      : null,
  ),

  rule("answers.keyboard", (context) => {
    const { keyboard } = context.sheet.answers;
    const offered = context.profile?.keyboards ?? [];
    if (keyboard === "")
      return hit("caution", "answers.keyboard", {
        state: "none",
      });
    if (offered.length === 0 || offered.includes(keyboard)) return null;
    return hit(
      "caution",
      "answers.keyboard",
      { state: "not offered", keyboard },
      evidence("chosen", keyboard, "this sheet"),
      evidence("offered", offered.join(", "), `OS profile ${profileName(context)}`),
    );
  }),

  rule("answers.keyboard-moves", ({ sheet, site }) => {
    const [sends, reads] = [site?.keyboard ?? "", sheet.answers.keyboard].map((name) => layouts().get(name));
    if (!site || !sends || !reads || sends === reads) return null;
    const moved = movedCharacters({ sends, reads });
    if (moved.length === 0) return null;
    const letters = moved.filter(({ character }) => /[A-Za-z0-9]/.test(character));
    return hit(
      "caution",
      "answers.keyboard",
      {
        site: site.keyboard,
        installer: sheet.answers.keyboard,
        count: String(moved.length),
        some: moved
          .filter((m) => letters.length === 0 || letters.includes(m))
          .slice(0, 8)
          .map(({ character, becomes }) => `${character} becomes ${becomes || "nothing"}`)
          .join(", "),
      },
      evidence("keyboards of the site", site.keyboard, site.name),
      evidence("layout of the installer", sheet.answers.keyboard, "this sheet"),
    );
  }),

  rule("answers.key", ({ sheet, today }) =>
    sheet.answers.accounts.flatMap(({ name, role, logIn, keys }) => {
      const wrong = keys.flatMap(({ line }) => {
        const key = readPublicKey(line);
        return key.ok ? [] : [key.problems[0]!.message];
      });
      const past = keys.find(({ until }) => until !== "" && until < today);
      const at = "answers.accounts";
      const subject = name;
      const seen = (what: string) => evidence(name, what, "this sheet");
      if (wrong[0] !== undefined)
        return {
          ...hit("stop", at, { name, state: "wrong", problem: wrong[0] }, seen(`${wrong.length} not valid`)),
          subject,
        };
      if (role !== "service" && logIn === "key" && keys.length === 0)
        return { ...hit("caution", at, { name, state: "none" }, seen("no public key")), subject };
      return past
        ? { ...hit("caution", at, { name, state: "past", until: past.until }, seen(past.until)), subject }
        : [];
    }),
  ),

  rule("answers.same-password", ({ secrets }) =>
    secrets
      .filter(({ same }) => same.length > 0)
      .map(({ opens, same }) => ({
        ...hit(
          "caution",
          "answers.accounts",
          { opens, others: same.join(" and ") },
          ...[opens, ...same].map((what) => evidence(what, "same fingerprint", "its password")),
        ),
        subject: opens,
      })),
  ),

  rule("answers.software", ({ sheet }) =>
    softwareProblems(sheet.answers).map(({ path, message }, i) => ({
      ...hit(
        "stop",
        `answers.${path}`,
        { what: SOFTWARE[path], problem: message },
        // What was typed may hold a password: it is not repeated.
        evidence(SOFTWARE[path], "value of the field", "this sheet"),
      ),
      subject: `${path} ${i}`,
    })),
  ),

  rule("answers.edition", ({ sheet, profile }) => {
    const problem = editionProblem(sheet.answers.edition, profile);
    return problem === null
      ? null
      : hit(
          sheet.answers.edition === "" ? "caution" : "stop",
          "answers.edition",
          { problem },
          evidence("edition", sheet.answers.edition || "empty", "this sheet"),
        );
  }),

  rule("answers.time-zone", ({ sheet, site }) => {
    const { timeZone } = sheet.answers;
    if (!isTimeZone(timeZone))
      return hit(
        "stop",
        "answers.timeZone",
        timeZone === "" ? { state: "empty" } : { state: "wrong", typed: timeZone },
        evidence("typed", timeZone || "empty", "this sheet"),
      );
    return site && site.timeZone !== timeZone
      ? hit(
          "note",
          "answers.timeZone",
          { state: "other", site: site.timeZone },
          evidence("this build", timeZone, "this sheet"),
          evidence("site", site.timeZone, site.name),
        )
      : null;
  }),
  ...COMMAND_CHECKS,
];
