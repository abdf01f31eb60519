/** What is wrong with a text, with its place. Lines and columns count from 1. */
export interface Problem {
  message: string;
  line?: number;
  column?: number;
  /** The offending line with a caret under the column, when there is one. */
  excerpt?: string;
}

/** The answer of everything that reads outside text: a value with warnings, or the problems that prevent one. */
export type Result<T> = { ok: true; value: T; warnings: Problem[] } | { ok: false; problems: Problem[] };

export const ok = <T>(value: T, warnings: Problem[] = []): Result<T> => ({ ok: true, value, warnings });

export const fail = (...problems: Problem[]): { ok: false; problems: Problem[] } => ({ ok: false, problems });

/** One line for a person: "line 3, column 7: message". */
export function formatProblem(problem: Problem): string {
  if (problem.line === undefined) return problem.message;
  const column = problem.column === undefined ? "" : `, column ${problem.column}`;
  return `line ${problem.line}${column}: ${problem.message}`;
}
