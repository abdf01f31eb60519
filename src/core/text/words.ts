import { term } from "./terms";

const PLACEHOLDER = /\{([a-z]+(?:\.[a-zA-Z]+)+)\}/g;

/** The names in {curly.braces} of a template, in order, without repeats. */
export function placeholdersOf(template: string): string[] {
  return [...new Set([...template.matchAll(PLACEHOLDER)].map((m) => m[1] ?? ""))];
}

/** What stands where a value is not decided yet. */
export const UNDECIDED = "(not decided)";

/** Replaces {name} by its value; a value that is not decided yet is shown as "(not decided)". */
export function fillTemplate(template: string, values: Readonly<Record<string, string>>): string {
  return template.replace(PLACEHOLDER, (_, name: string) => values[name] || UNDECIDED);
}

/** Any stored value as a person reads it; absence is a dash. */
export function shown(value: unknown): string {
  if (value === null || value === undefined || value === "") return "–";
  if (typeof value === "boolean") return value ? "yes" : "no";
  if (Array.isArray(value)) return value.length === 0 ? "–" : value.map(shown).join(", ");
  if (typeof value === "object") {
    return Object.entries(value)
      .filter(([, v]) => v !== null && v !== "" && v !== undefined && !(Array.isArray(v) && v.length === 0))
      .map(([k, v]) => `${k} ${shown(v)}`)
      .join(", ");
  }
  return term(String(value));
}
