import { createHash } from "node:crypto";
import type { Answer } from "@/contract";
import { answerFileOf, commandsOf, textOf, type Hashes } from "@/core/answers";
import { answerNames, firstBootCommands } from "@/core/netboot";
import { derive, fieldWords, type Plan } from "@/core/sheet";
import { buildRows } from "@/db";
import { no, yes } from "../answer";
import type { Desk } from "../desk";
import { hashesOf } from "../seals";
import { sourcesOf } from "../sources";

/** The answer files of a build under the names that its installer asks for, the main one first. */
export interface NamedAnswers {
  files: { name: string; text: string }[];
  /** Commands of the first start, with their parameters in place. */
  firstStart: string[];
  /** All that was sealed for them. */
  secrets: string[];
  digest: string;
}

/** Where a machine finds the script of its first start, and where it tells how far it is. */
export interface Callbacks {
  script: string;
  report: string;
  /** The public key that it believes there; "" over plain http. */
  pin?: string;
}

/** The plan of a build with commands at the end of its installation that lead on to its first start. */
function withFirstBoot(plan: Plan, { script, report, pin = "" }: Callbacks): Plan {
  const { answers } = plan.sheet;
  const finish = [...answers.finish, ...firstBootCommands(script, report, pin)];
  return { ...plan, sheet: { ...plan.sheet, answers: { ...answers, finish } } };
}

/**
 * The answer files of a build as it stands now, with the hashes that were sealed for it. The digest is that of the files
 * without what any one installation adds, so that a change of the sheet is seen. A page gives a `look` by which no secret is shown.
 */
export async function namedAnswers(
  desk: Desk,
  plan: Plan,
  buildId: string,
  callbacks: Callbacks | null,
  look: (hashes: Hashes) => Hashes = (hashes) => hashes,
): Promise<Answer<NamedAnswers>> {
  const hashes = look(await hashesOf(desk, buildId));
  const plainOnes = answerFileOf(plan, hashes);
  if (plainOnes.kind === "none") return no(plainOnes.why);
  if (plainOnes.kind === "open")
    return no(
      ...plainOnes.gaps.map(({ path, message }) => {
        const { zone, name } = fieldWords(path);
        return `Zone ${zone}, ${name}: ${message}.`;
      }),
    );
  const own = callbacks ? answerFileOf(withFirstBoot(plan, callbacks), hashes, true) : plainOnes;
  if (own.kind !== "file") return no("The answer file does not support first-boot commands.");
  const all = [own.file, ...own.also];
  const names = answerNames(plan.profile?.answerFile ?? "none", [own.file.name]);
  const { commands, problems } = commandsOf(plan, "firstStart", hashes);
  if (problems.length > 0) return no(...problems);
  const hash = createHash("sha256").update(`${JSON.stringify(commands)}\0`);
  for (const file of [plainOnes.file, ...plainOnes.also]) hash.update(`${file.name}\0${textOf(file)}\0`);
  return yes({
    files: names.map((name, i) => ({ name, text: textOf(all[i] ?? own.file) })),
    firstStart: commands,
    secrets: [...hashes.values()],
    digest: hash.digest("hex"),
  });
}

/** The plan of a build as it stands now; null when the build is gone. */
export async function planOf(desk: Desk, buildId: string): Promise<Plan | null> {
  const build = await buildRows.one(desk.db, buildId);
  return build ? derive(await sourcesOf(desk, buildId, build.sheet)) : null;
}
