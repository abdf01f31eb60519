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
}

/** Why a word is no name of a package, or of a group of them under an "@"; or null. */
export const componentProblem = (word: string): string | null =>
  /^@?\^?[A-Za-z0-9][A-Za-z0-9+._:-]{0,99}$/.test(word)
    ? null
    : `"${word.slice(0, 40)}" is no name of a package, nor of a group under an @`;

/** Why a word is no name of a service, or null. */
export const serviceProblem = (word: string): string | null =>
  /^[A-Za-z0-9][A-Za-z0-9@._-]{0,99}$/.test(word) ? null : `"${word.slice(0, 40)}" is no name of a service`;

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
}: Software): { path: keyof Software; message: string }[] => {
  const of = (path: keyof Software, problem: string | null) =>
    problem === null ? [] : [{ path, message: problem }];
  return [
    ...of("source", sourceProblem(source)),
    ...of("proxy", sourceProblem(proxy)),
    ...components.flatMap((c) => of("components", componentProblem(c))),
    ...services.flatMap((s) => of("services", serviceProblem(s))),
  ];
};
