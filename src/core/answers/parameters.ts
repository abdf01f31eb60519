import type { OnMachine } from "../machine";
import { shellWord } from "../network";
import { commandProblem } from "./software";
import {
  fillCommand,
  fillWords,
  inForce,
  parametersIn,
  valuesOf,
  type InForce,
  type Level,
  type Parameter,
} from "../parameter";

interface Giving {
  parameters: readonly Parameter[];
}

/** Where the parameters of a sheet are given, and what names them. */
export interface ParameterGround extends OnMachine {
  sheet: { answers: Giving & { finish: readonly string[]; firstStart: readonly string[] } };
  site?: Giving | null;
  profile: (Giving & { netboot: { words: readonly string[] } | null }) | null;
}

/** The parameters in force for a sheet, by name. */
export const parametersOf = ({ profile, site, sheet, machine }: ParameterGround): InForce[] =>
  inForce({
    ...{ profile: profile?.parameters ?? [], site: site?.parameters ?? [] },
    ...{ sheet: sheet.answers.parameters, machine: machine?.document.typed.parameters ?? [] },
  });

type Commands = "finish" | "firstStart";

/**
 * The commands of a sheet with their parameters in place; a secret comes out of what was sealed, and without that stands under
 * its name. What cannot be filled is told in its stead.
 */
export function commandsOf(
  ground: ParameterGround,
  which: Commands,
  sealed: ReadonlyMap<string, string> | null,
): { commands: string[]; problems: string[] } {
  const values = valuesOf(parametersOf(ground), sealed);
  const sound = ground.sheet.answers[which].filter((command) => commandProblem(command) === null);
  const filled = sound.map((command) => fillCommand(command, values, shellWord));
  return {
    commands: filled.flatMap((f) => (f.ok ? [f.value] : [])),
    problems: [
      ...new Set([
        ...filled.flatMap((f) => (f.ok ? [] : [f.problem])),
        ...ground.sheet.answers[which].flatMap((command) => commandProblem(command) ?? []),
      ]),
    ],
  };
}

/** What the profile tells the kernel of a machine that starts over the network, with its parameters in place. */
export const ownWordsOf = (ground: ParameterGround): ReturnType<typeof fillWords> =>
  fillWords(ground.profile?.netboot?.words ?? [], parametersOf(ground));

/** Values that stand in clear somewhere although their name is that of a secret, by the level that has them. */
export const openSecrets = ({
  profile,
  site,
  sheet,
  machine,
}: ParameterGround): { name: string; from: Level }[] => {
  const levels: Record<Level, readonly Parameter[]> = {
    ...{ profile: profile?.parameters ?? [], site: site?.parameters ?? [] },
    ...{ sheet: sheet.answers.parameters, machine: machine?.document.typed.parameters ?? [] },
  };
  const secret = new Set(
    Object.values(levels).flatMap((all) => all.flatMap((p) => (p.isSecret ? [p.name] : []))),
  );
  return (Object.keys(levels) as Level[]).flatMap((from) =>
    levels[from].flatMap(({ name, value }) => (secret.has(name) && value !== "" ? [{ name, from }] : [])),
  );
};

/** Secrets that the commands of a sheet name: each is sealed before its files are written. */
export function secretsNamed(ground: ParameterGround): string[] {
  const { finish, firstStart } = ground.sheet.answers;
  const named = new Set([...finish, ...firstStart].flatMap(parametersIn));
  return parametersOf(ground).flatMap((p) => (p.isSecret && named.has(p.name) ? [p.name] : []));
}
