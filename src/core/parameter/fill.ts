import { sealedAs, type InForce } from "./parameter";

const PLACE = /\{parameter\.([^{}]*)\}/g;

/** The names of the parameters that a text takes up. */
export const parametersIn = (text: string): string[] => [
  ...new Set([...text.matchAll(PLACE)].map((m) => m[1] ?? "")),
];

export type Filled<T> = { ok: true; value: T } | { ok: false; problem: string };

/** Values by name; of a secret that nobody has sealed, why there is none. */
export type Values = ReadonlyMap<string, { value: string } | { problem: string }>;

/** What every name stands for; without what was sealed, a secret stands for a text that says so. */
export const valuesOf = (all: readonly InForce[], sealed: ReadonlyMap<string, string> | null): Values =>
  new Map(
    all.map(({ name, value, isSecret }) => {
      if (!isSecret) return [name, { value }];
      if (!sealed) return [name, { value: `the secret ${name}` }];
      const secret = sealed.get(sealedAs(name));
      return [
        name,
        secret === undefined
          ? { problem: `the secret parameter "${name}" is not stored for this sheet` }
          : { value: secret },
      ];
    }),
  );

function problemIn(text: string, values: Values): string | null {
  for (const name of parametersIn(text)) {
    const found = values.get(name);
    if (!found)
      return `the parameter "${name.slice(0, 40)}" is used, but not set in the profile, site, sheet or machine`;
    if ("problem" in found) return found.problem;
  }
  return null;
}

const valueOf = (values: Values, name: string): string => {
  const found = values.get(name);
  return found && "value" in found ? found.value : "";
};

/** Whether a place stands between quotes of the shell, which a quoted value would end. */
function isQuoted(command: string, place: number): boolean {
  let quote = "";
  for (let i = 0; i < place; i += 1) {
    const sign = command[i] ?? "";
    if (sign === "\\" && quote !== "'") i += 1;
    else if (quote === "") quote = sign === "'" || sign === '"' ? sign : "";
    else if (sign === quote) quote = "";
  }
  return quote !== "";
}

/** A command of a shell with its parameters in place, each written by `word` so that nothing in it is read as more than a text. */
export function fillCommand(
  command: string,
  values: Values,
  word: (value: string) => string,
): Filled<string> {
  const problem = problemIn(command, values);
  if (problem) return { ok: false, problem };
  const quoted = [...command.matchAll(PLACE)].find((m) => isQuoted(command, m.index));
  if (quoted)
    return {
      ok: false,
      problem: `the parameter "${quoted[1]}" is between quotes: remove them, because it is quoted automatically`,
    };
  return { ok: true, value: command.replace(PLACE, (_, name: string) => word(valueOf(values, name))) };
}

/** What boot loaders read as more than a word: ends of commands, and what they replace by themselves. */
const NO_WORD = /\$\{|^(\|\||&&|;)$/;

/**
 * The words of a kernel with their parameters in place. One that names an empty parameter is left out; one that is nothing but a
 * parameter may become several words. No word holds a secret.
 */
export function fillWords(words: readonly string[], all: readonly InForce[]): Filled<string[]> {
  const values = valuesOf(all, null);
  const filled: string[] = [];
  for (const word of words) {
    const names = parametersIn(word);
    const secret = all.find((p) => p.isSecret && names.includes(p.name));
    const problem = secret
      ? `"${secret.name}" is a secret, and kernel command lines are shown on the console and in logs`
      : problemIn(word, values);
    if (problem) return { ok: false, problem };
    if (names.some((name) => valueOf(values, name).trim() === "")) continue;
    const text = word.replace(PLACE, (_, name: string) => valueOf(values, name).trim());
    const parts = text.split(/ +/);
    if (/[^\x20-\x7e]/.test(text))
      return {
        ok: false,
        problem: "a kernel option of the profile is not one line of ASCII",
      };
    if (parts.length > 1 && word !== `{parameter.${names[0] ?? ""}}`)
      return {
        ok: false,
        problem: `the value of "${names.join('" or "')}" contains a space, which a kernel option cannot have`,
      };
    if (names.length > 0 && parts.some((part) => NO_WORD.test(part)))
      return {
        ok: false,
        problem: `the value of "${names.join('" or "')}" contains a command of the boot loader`,
      };
    filled.push(...parts);
  }
  return { ok: true, value: filled };
}
