import { sourceProblem } from "../network";

/** What a system takes its packages from, and which of them, as the sheet has it. */
export interface Software {
  /** Where packages come from: an address, or "" for the medium itself. */
  source: string;
  /** By which proxy, or "" for none. */
  proxy: string;
  /** Packages, and groups of them under an "@". */
  components: string[];
  /** What is started with the system, beside what its packages start by themselves. */
  services: string[];
  /** Commands of a POSIX shell that are run once, in their order, at the end. */
  finish: string[];
  /** The same of its first start. */
  firstStart: string[];
}

/** Why a word is no name of a package, or of a group of them under an "@"; or null. */
export const componentProblem = (word: string): string | null =>
  /^@?\^?[A-Za-z0-9][A-Za-z0-9+._:-]{0,99}$/.test(word)
    ? null
    : `"${word.slice(0, 40)}" is not a package name, nor a group name (with @)`;

/** Why a word is no name of a service, or null. */
export const serviceProblem = (word: string): string | null =>
  /^[A-Za-z0-9][A-Za-z0-9@._-]{0,99}$/.test(word) ? null : `"${word.slice(0, 40)}" is not a service name`;

/** Why a text is no command that a file can hold, or null. Every file that it stands in can be read by others. */
export const commandProblem = (command: string): string | null => {
  const told = `"${command.slice(0, 40)}"`;
  if (command.trim() === "" || command.length > 400) return `${told} is empty, or longer than 400 characters`;
  if (/[\p{Cc}\p{Cs}\u2028\u2029\ufffe\uffff]/u.test(command))
    return "one of the commands is not a single line of text";
  // What was typed may be a password: it is not repeated.
  return /:\/\/[^/\s:@]*:[^/\s@]+@/.test(command)
    ? "an address in one of the commands contains a password, which would be readable in the file"
    : null;
};

/** Groups and packages apart, groups without their sign. */
export const componentsOf = (components: readonly string[]): { groups: string[]; packages: string[] } => ({
  groups: components.flatMap((c) => (c.startsWith("@") ? [c.slice(1)] : [])),
  packages: components.filter((c) => !c.startsWith("@")),
});

/** What is wrong with it, each with its field. */
export const softwareProblems = ({
  source,
  proxy,
  components,
  services,
  finish,
  firstStart,
}: Software): { path: keyof Software; message: string }[] => {
  const of = (path: keyof Software, problem: string | null) =>
    problem === null ? [] : [{ path, message: problem }];
  return [
    ...of("source", sourceProblem(source)),
    ...of("proxy", sourceProblem(proxy)),
    ...components.flatMap((c) => of("components", componentProblem(c))),
    ...services.flatMap((s) => of("services", serviceProblem(s))),
    ...finish.flatMap((c) => of("finish", commandProblem(c))),
    ...firstStart.flatMap((c) => of("firstStart", commandProblem(c))),
  ];
};
