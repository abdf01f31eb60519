import type { Problem } from "@/core/result";

/** A problem with the place in people's words: "segments.0.gateway: …" is the gateway of the first of the networks. */
export function placed(problem: Problem, names: Readonly<Record<string, string>>): Problem {
  const [, path = "", said = ""] = /^([\w.]+): ([^]*)$/.exec(problem.message) ?? [];
  const keys = path.split(".");
  for (let kept = keys.length; kept > 0; kept -= 1) {
    const name = names[keys.slice(0, kept).join(".")];
    const rest = keys.slice(kept).map((k) => (/^\d+$/.test(k) ? `no. ${Number(k) + 1}` : k));
    if (name) return { ...problem, message: `${[name, ...rest].join(", ")}: ${said}` };
  }
  return problem;
}
