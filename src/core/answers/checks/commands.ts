import { evidence, hit } from "../../finding";
import { fixedWaits, leftBehind } from "../left-behind";
import { commandsOf, openSecrets, ownWordsOf } from "../parameters";
import { rule, type AnswersRule } from "./rule";

/** Rules about what a system is told to do by itself, and about the values that it names. */
export const COMMAND_CHECKS: readonly AnswersRule[] = [
  rule("answers.parameter", (ground) => {
    const words = ground.sheet.image.way === "network" ? ownWordsOf(ground) : { ok: true as const };
    const told = [
      ...(["finish", "firstStart"] as const).flatMap((which) =>
        commandsOf(ground, which, null).problems.map((problem) => ({
          at: `answers.${which}` as const,
          problem,
        })),
      ),
      ...(words.ok ? [] : [{ at: "answers.parameters" as const, problem: words.problem }]),
    ];
    return told.map(({ at, problem }) => ({
      ...hit("stop", at, { problem }, evidence("parameters", "effective parameters", "this sheet")),
      subject: problem,
    }));
  }),

  rule("answers.secret-open", (ground) =>
    openSecrets(ground).map(({ name, from }) => ({
      ...hit(
        "stop",
        "answers.parameters",
        { name, from },
        evidence(`"${name}"`, "a secret with a clear-text value", from),
      ),
      subject: `${name} ${from}`,
    })),
  ),

  rule("answers.first-start", ({ sheet, site, profile }) =>
    sheet.answers.firstStart.length > 0 &&
    (sheet.image.way !== "network" || site?.networkBoot !== "on" || (profile !== null && !profile.netboot))
      ? hit(
          "stop",
          "answers.firstStart",
          { count: String(sheet.answers.firstStart.length) },
          evidence("way", sheet.image.way, "this sheet"),
          evidence("network boot", site?.networkBoot ?? "unspecified", site?.name ?? "site"),
        )
      : null,
  ),

  rule("answers.fixed-wait", (ground) => {
    const [first] = fixedWaits(ground);
    return first === undefined
      ? null
      : hit(
          "caution",
          ground.sheet.answers.finish.includes(first) ? "answers.finish" : "answers.firstStart",
          { command: first.slice(0, 80) },
          evidence("command", first.slice(0, 80), "this sheet"),
        );
  }),

  rule("answers.left-behind", (ground) =>
    leftBehind(ground)
      .filter(({ until }) => until === null)
      .map(({ kind, what }) => ({
        ...hit(
          kind === "opened shell" ? "caution" : "note",
          ground.sheet.answers.services.includes(what)
            ? "answers.services"
            : ground.sheet.answers.finish.includes(what)
              ? "answers.finish"
              : "answers.firstStart",
          kind === "opened shell"
            ? { state: "shell", what: what.slice(0, 80) }
            : { state: "hidden", what: what.slice(0, 80) },
          evidence(kind, what.slice(0, 80), "this sheet"),
        ),
        subject: what,
      })),
  ),
];
