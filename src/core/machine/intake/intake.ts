import type { Problem } from "../../result";
import { parseJson } from "../../text";
import { isBundle, parseBundle } from "./bundle";
import { IMPORTERS, type Importer, type Reading } from "./importers";

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

/** Recognises each text by its content and reads it. Nothing is changed; good parts stand beside rejected ones. */
export function readTexts(texts: readonly NamedText[]): Intake {
  const intake: Intake = { readings: [], rejected: [], remarks: [], hostName: null, takenAt: null };
  for (const item of joinParts(texts, intake)) {
    if (item.text.length > MAX_TEXT_CHARACTERS)
      reject(intake, item.name, null, {
        message: `${Math.round(item.text.length / 1e6)} MB of text; the largest that is read is ${MAX_TEXT_CHARACTERS / 1e6} MB, and a whole bundle is under 1 MB. Is this the right file?`,
      });
    else if (isBundle(item.text)) readBundle(item, intake);
    else readOne(item.text, item.name, 1, intake);
  }
  const rank = (tool: string): number => IMPORTERS.findIndex((i) => i.tool === tool);
  intake.readings.sort((a, b) => rank(a.tool) - rank(b.tool));
  return intake;
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

function readBundle(item: NamedText, intake: Intake): void {
  const bundle = parseBundle(item.text);
  if (!bundle.ok) return reject(intake, item.name, "bundle", ...bundle.problems);
  const { sections, host, takenAt, asRoot, absent } = bundle.value;
  intake.hostName ??= host;
  intake.takenAt ??= takenAt;
  if (bundle.warnings.length > 0) reject(intake, item.name, "bundle", ...bundle.warnings);
  if (sections.length === 0 && bundle.warnings.length === 0)
    reject(intake, item.name, "bundle", { message: "the bundle holds no section" });
  if (!asRoot)
    intake.remarks.push(
      "The collector ran without root: chassis, memory modules and some serials may be absent.",
    );
  intake.remarks.push(...absent.map((a) => `Not in the bundle – ${a}`));
  for (const section of sections)
    readOne(section.text, `${item.name}, section ${section.tool}`, section.startLine, intake, section.tool);
}

function readOne(text: string, from: string, firstLine: number, intake: Intake, named?: string): void {
  const importer = recognise(text) ?? IMPORTERS.find((i) => i.tool === named);
  if (!importer)
    return reject(intake, from, null, {
      message: `not recognised. Derrick reads ${IMPORTERS.filter((i) => !i.command.startsWith("("))
        .map((i) => i.command)
        .join(", ")}, and collector bundles. This starts with "${text
        .trim()
        .slice(0, 40)
        .replace(/\p{Cc}/gu, "·")}"`,
      line: firstLine,
    });
  const result = importer.parse(text);
  const shift = (p: Problem): Problem => (p.line === undefined ? p : { ...p, line: p.line + firstLine - 1 });
  if (result.ok)
    intake.readings.push({
      tool: importer.tool,
      from,
      reading: result.value,
      warnings: result.warnings.map(shift),
    });
  else reject(intake, from, importer.tool, ...result.problems.map(shift));
}
