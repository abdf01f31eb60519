import type { Problem } from "../../result";
import { parseJson } from "../../text";
import { isBundle, parseBundle } from "./bundle";
import { checkedReading, unlikelyText } from "./checked";
import { IMPORTERS, lastWords, type Importer, type Reading } from "./importers";

/** A dropped file or pasted text. */
export interface NamedText {
  name: string;
  text: string;
}

export interface TakenReading {
  tool: string;
  /** File, or file and section. */
  from: string;
  reading: Reading;
  warnings: Problem[];
  /** A text of lines that does not show its own end: what it does not show may stand behind a cut. */
  mayBeCut: boolean;
}

export interface Rejected {
  from: string;
  tool: string | null;
  problems: Problem[];
}

/** What a set of dropped texts amounts to, before anything is taken over. */
export interface Intake {
  readings: TakenReading[];
  rejected: Rejected[];
  remarks: string[];
  hostName: string | null;
  takenAt: string | null;
}

/** A bundle of a large server is under 1 MB; what is larger than this is not the output of these tools. */
export const MAX_TEXT_CHARACTERS = 8_000_000;

const recognise = (text: string): Importer | undefined =>
  IMPORTERS.find((importer) => importer.recognises(text));

/**
 * Recognises each text by its content and reads it, tool by tool; between them it tells how many characters are done.
 * Nothing is changed; good parts stand beside rejected ones.
 */
export function* readingTexts(texts: readonly NamedText[]): Generator<number, Intake> {
  const intake: Intake = { readings: [], rejected: [], remarks: [], hostName: null, takenAt: null };
  let done = 0;
  for (const item of joinParts(texts, intake)) {
    yield done;
    if (item.text.length > MAX_TEXT_CHARACTERS)
      reject(intake, item.name, null, {
        message: `${Math.round(item.text.length / 1e6)} MB of text; the limit is ${MAX_TEXT_CHARACTERS / 1e6} MB. A bundle is usually under 1 MB: check that this is the right file.`,
      });
    else if (isBundle(item.text)) for (const read of readBundle(item, intake)) yield done + read;
    else readLone(item, intake);
    done += item.text.length;
  }
  const rank = (tool: string): number => IMPORTERS.findIndex((i) => i.tool === tool);
  intake.readings.sort((a, b) => rank(a.tool) - rank(b.tool));
  return intake;
}

/** The same at one go. */
export function readTexts(texts: readonly NamedText[]): Intake {
  const steps = readingTexts(texts);
  let step = steps.next();
  while (!step.done) step = steps.next();
  return step.value;
}

/** Texts of one tool that belong together are read as one; a broken one among them is refused alone. */
function joinParts(texts: readonly NamedText[], intake: Intake): NamedText[] {
  const parts = new Map<Importer, NamedText[]>();
  const rest = texts.filter((item) => {
    if (item.text.length > MAX_TEXT_CHARACTERS || isBundle(item.text)) return true;
    const importer = recognise(item.text);
    if (!importer?.join) return true;
    const json = parseJson(item.text);
    if (json.ok) parts.set(importer, [...(parts.get(importer) ?? []), item]);
    else reject(intake, item.name, importer.tool, ...json.problems);
    return false;
  });
  const joined = [...parts].map(([importer, items]) => ({
    name:
      items.length === 1
        ? (items[0]?.name ?? "")
        : `${items.length} files (${items.map((i) => i.name).join(", ")})`.slice(0, 300),
    text: importer.join?.(items.map((i) => i.text)) ?? "",
  }));
  return [...rest, ...joined];
}

function reject(intake: Intake, from: string, tool: string | null, ...problems: Problem[]): void {
  intake.rejected.push({ from, tool, problems });
}

/** Between its sections it tells how many characters of them are done. */
function* readBundle(item: NamedText, intake: Intake): Generator<number, void> {
  const bundle = parseBundle(item.text);
  if (!bundle.ok) return reject(intake, item.name, "bundle", ...bundle.problems);
  const { sections, host, takenAt, asRoot, absent } = bundle.value;
  intake.hostName ??= host;
  intake.takenAt ??= takenAt;
  if (bundle.warnings.length > 0) reject(intake, item.name, "bundle", ...bundle.warnings);
  if (sections.length === 0 && bundle.warnings.length === 0)
    reject(intake, item.name, "bundle", { message: "the bundle has no section" });
  if (!asRoot)
    intake.remarks.push(
      "The collector ran without root: chassis, memory modules and some serial numbers may be missing.",
    );
  intake.remarks.push(...absent.map((a) => `Not in the bundle: ${a}`));
  let done = 0;
  for (const section of sections) {
    yield done;
    readOne({ text: section.text, from: `${item.name}, section ${section.tool}` }, intake, {
      firstLine: section.startLine,
      named: section.tool,
    });
    done += section.text.length;
  }
}

const isJson = (text: string): boolean => /^\s*[{[]/.test(text);

/**
 * A text that was dropped alone. Tools end their last line; where it has no end, the text was cut off in it (or pasted
 * without it), and it is left out.
 */
function readLone({ name, text }: NamedText, intake: Intake): void {
  const importer = recognise(text);
  const mayBeCut = !isJson(text) && !importer?.hasEnd?.(text);
  if (!mayBeCut || text.endsWith("\n")) return readOne({ text, from: name }, intake, { mayBeCut });
  const left = text.slice(0, text.lastIndexOf("\n") + 1);
  const line = text.split("\n").length;
  const after = `truncated after "${lastWords(text)}"`;
  if (importer && left.trim() === "")
    return reject(intake, name, importer.tool, {
      message: `${after}: the only line has no end. Drop the whole output; if this is all of it, with the end of its line.`,
      line,
    });
  readOne({ text: left, from: name }, intake, {
    mayBeCut,
    warning: {
      message: `${after}: the last line has no end, so it was skipped. Drop the whole output; missing parts are not treated as removed.`,
      line,
    },
  });
}

interface Circumstances {
  firstLine?: number;
  /** The tool by the name that a bundle gives it, for texts that cannot be recognised. */
  named?: string;
  mayBeCut?: boolean;
  warning?: Problem;
}

function readOne({ text, from }: { text: string; from: string }, intake: Intake, how: Circumstances): void {
  const { firstLine = 1, named, mayBeCut = false, warning } = how;
  const unlikely = isJson(text) ? null : unlikelyText(text);
  if (unlikely) return reject(intake, from, null, unlikely);
  const importer = recognise(text) ?? IMPORTERS.find((i) => i.tool === named);
  if (!importer)
    return reject(intake, from, null, {
      message: `not recognised. Supported: ${IMPORTERS.filter((i) => !i.command.startsWith("("))
        .map((i) => i.command)
        .join(", ")}, and collector bundles. This text starts with "${text
        .trim()
        .slice(0, 40)
        .replace(/\p{Cc}/gu, "·")}"`,
      line: firstLine,
    });
  const result = importer.parse(text);
  const shift = (p: Problem): Problem => (p.line === undefined ? p : { ...p, line: p.line + firstLine - 1 });
  const warnings = warning ? [warning] : [];
  if (!result.ok) {
    const isTold = result.problems.some((p) => p.message.includes("truncated"));
    return reject(intake, from, importer.tool, ...result.problems.map(shift), ...(isTold ? [] : warnings));
  }
  const checked = checkedReading(importer.tool, result.value);
  if ("message" in checked) return reject(intake, from, importer.tool, checked);
  warnings.push(...result.warnings.map(shift), ...checked.warnings);
  intake.readings.push({ tool: importer.tool, from, reading: checked.reading, warnings, mayBeCut });
}
