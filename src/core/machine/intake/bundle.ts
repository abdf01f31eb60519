import { fail, ok, type Problem, type Result } from "../../result";

/** One tool's answer inside a bundle, with the line on which its text starts. */
export interface Section {
  tool: string;
  text: string;
  startLine: number;
}

export interface Bundle {
  host: string | null;
  takenAt: string | null;
  /** False when the collector ran without root; some tools say less then. */
  asRoot: boolean;
  sections: Section[];
  /** What the collector could not run, in its own words. */
  absent: string[];
}

const FIRST_LINE = "derrick-bundle 1";

export const isBundle = (text: string): boolean => /^\s*derrick-bundle \d/.test(text.slice(0, 200));

/**
 * Reads the text that the collector script writes. Grammar, one line each: the first line; `host`, `taken`, `user`;
 * `begin TOOL`, content lines each behind "| ", `end TOOL lines=N`; `absent TOOL why`; last `done`. A section whose
 * `end` is absent or counts other lines is a warning and is left out; the others stand.
 */
export function parseBundle(text: string): Result<Bundle> {
  const lines = text.replace(/\r\n/g, "\n").split("\n");
  const start = lines.findIndex((l) => l.trim() !== "");
  if (lines[start]?.trim() !== FIRST_LINE)
    return fail({
      message: `a bundle starts with "${FIRST_LINE}"; this one starts with "${lines[start]?.slice(0, 60) ?? ""}"`,
      line: start + 1,
    });
  const bundle: Bundle = { host: null, takenAt: null, asRoot: false, sections: [], absent: [] };
  const warnings: Problem[] = [];
  let open: { tool: string; content: string[]; line: number } | null = null;
  let done = false;
  lines.slice(start + 1).forEach((line, i) => {
    const number = start + i + 2;
    if (line.startsWith("|")) {
      open?.content.push(line.slice(line.startsWith("| ") ? 2 : 1));
      return;
    }
    const [word, name = "", ...rest] = line.split(" ");
    if (word === "begin") {
      if (open) warnings.push(unfinished(open, number));
      open = { tool: name.replaceAll("-", " "), content: [], line: number };
    } else if (word === "end" && open) {
      const declared = /lines=(\d+)/.exec(line)?.[1];
      if (Number(declared) === open.content.length)
        bundle.sections.push({ tool: open.tool, text: open.content.join("\n"), startLine: open.line + 1 });
      else
        warnings.push({
          message: declared
            ? `section ${open.tool} declares ${declared} lines and has ${open.content.length}: skipped`
            : `section ${open.tool} has no line count: it is truncated, and skipped`,
          line: open.line,
        });
      open = null;
    } else if (word === "absent") bundle.absent.push(`${name.replaceAll("-", " ")}: ${rest.join(" ")}`);
    else if (word === "host") bundle.host = name || null;
    else if (word === "taken")
      bundle.takenAt = Number.isNaN(Date.parse(name)) ? null : new Date(name).toISOString();
    else if (word === "user") bundle.asRoot = name === "0";
    else if (word === "done") done = true;
  });
  if (open) warnings.push(unfinished(open, lines.length));
  if (!done)
    warnings.push({ message: "the bundle ends before its last line: it is truncated", line: lines.length });
  return ok(bundle, warnings);
}

const unfinished = (open: { tool: string; line: number }, line: number): Problem => ({
  message: `section ${open.tool}, begun in line ${open.line}, has no end before line ${line}: skipped`,
  line: open.line,
});
