import { ok, type Problem, type Result } from "../result";
import type { READ_BACK } from "../image";
import type { OperationOf, VERBS } from "../work";
import { parseByteSize } from "../units";

type Part = (typeof READ_BACK)[number];

export interface Typed {
  verb?: (typeof VERBS)[number] | undefined;
  version?: string | undefined;
  size?: string | undefined;
}

/** Consoles round a size to as little as two digits after the point; drives that can be confused are 4 % apart. */
const SIZE_TOLERANCE = 0.015;

const partsOf = (version: string): string[] => /\d+(?:\.\d+)*/.exec(version)?.[0].split(".") ?? [];

/**
 * A version agrees as far as both tell it, and to two places at least: a console may leave the build number out, or add
 * one, and a number alone does not tell 9.0 from 9.1.
 */
function sameVersion(typed: string, planned: string): boolean {
  const [a, b] = [partsOf(typed), partsOf(planned)];
  const common = Math.min(a.length, b.length);
  return common >= Math.min(2, b.length) && a.slice(0, common).every((part, i) => part === b[i]);
}

/** Bytes that a typed size may mean: many consoles write GB for 1024³ bytes. */
function meanings(size: string): Result<number[]> {
  const meant = parseByteSize(size);
  if (!meant.ok) return meant;
  const binary = parseByteSize(size.replace(/([kmgtp])b$/i, "$1iB"));
  return ok(binary.ok ? [meant.value, binary.value] : [meant.value]);
}

const near = (a: number, b: number): boolean => Math.abs(a - b) <= b * SIZE_TOLERANCE;

/**
 * Which of what was read from the console is not what the plan says. What cannot be compared (nothing typed, a size without
 * a unit) is a problem with its field, never a difference.
 */
export function compareReadBack(
  plan: Pick<OperationOf<"read back">, "asks" | "verb" | "version" | "sizes">,
  typed: Typed,
): Result<Part[]> {
  const problems: Problem[] = [];
  const lacks = (message: string): boolean => {
    problems.push({ message });
    return false;
  };
  const sizes = plan.asks.includes("size") ? meanings(typed.size ?? "") : null;
  const differs: Record<Part, () => boolean> = {
    verb: () => (typed.verb ? typed.verb !== plan.verb : lacks("Choose what the console is about to do.")),
    version: () =>
      partsOf(typed.version ?? "").length > 0
        ? !sameVersion(typed.version ?? "", plan.version)
        : lacks("Type the version as the console shows it, in digits."),
    size: () =>
      sizes?.ok
        ? !sizes.value.some((a) => plan.sizes.some((b) => near(a, b)))
        : lacks("Type the size with its unit as the console shows it, for example 240 GB."),
  };
  const found = plan.asks.filter((part) => differs[part]());
  return problems.length > 0 ? { ok: false, problems } : ok(found);
}

const NAMES: Record<Part, string> = {
  verb: "operation",
  version: "version",
  size: "drive size",
};

/** What was read back, in words: `install · 9.0.2 · 240 GB`. */
export const readBackWords = ({ verb, version, size }: Typed): string =>
  [verb, version?.trim(), size?.trim()].filter(Boolean).join(" · ");

/** Why a run stops there; the plan's own values stay off the page, since they are asked for again. */
export const readBackStop = (typed: Typed, differs: readonly Part[]): string =>
  `The console is about to do something else than planned: ${differs.map((part) => `${NAMES[part]} (${typed[part] ?? ""})`).join(", ")}. Do not press a key that continues; go back on the console, and check the choices.`;
