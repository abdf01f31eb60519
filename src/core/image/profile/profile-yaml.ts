import { isNode, LineCounter, parseDocument, stringify, type Document } from "yaml";
import { z } from "zod";
import { fail, ok, type Problem, type Result } from "../../result";
import { excerptAt } from "../../text";
import { unseenTexts } from "../../document";
import { profileSchema, type Profile } from "./profile";
import { upgradeProfile } from "./upgrade-profile";

/** The largest profile text that is read; the shipped ones are under 20 kB. */
const MAX_CHARACTERS = 500_000;

/** Problems that are told of one text: each costs a walk through it, and nobody mends more at once. */
const MOST_TOLD = 20;

/** Reads a profile from YAML. Every problem names the field and, where it stands in the text, line and column. */
export function parseProfileYaml(text: string): Result<Profile> {
  if (text.length > MAX_CHARACTERS)
    return fail({ message: `${text.length} characters; the limit of a profile is ${MAX_CHARACTERS}` });
  const lines = new LineCounter();
  const document = parseDocument(text, { lineCounter: lines, prettyErrors: false });
  if (document.errors.length > 0)
    return fail(
      ...document.errors
        .slice(0, MOST_TOLD)
        .map((e) => placed(text, lines, e.pos[0], `not YAML: ${e.message}`)),
    );
  let plain: unknown;
  try {
    plain = upgradeProfile(document.toJS({ maxAliasCount: 50 }));
  } catch (error) {
    return fail({
      message: `the YAML cannot be expanded: ${error instanceof Error ? error.message : "too many aliases"}`,
    });
  }
  const shaped = profileSchema.safeParse(plain);
  // Its sentences may have lines anywhere, folded as YAML has them; what goes into a file is looked at where that is written.
  const unseen = shaped.success ? unseenTexts(shaped.data, "anywhere") : [];
  if (unseen.length > 0) return fail(...unseen.map((message) => ({ message })));
  if (shaped.success) return ok(shaped.data);
  return fail(
    ...shaped.error.issues.slice(0, MOST_TOLD).map((issue) => {
      const path = issue.path.map((part) => (typeof part === "symbol" ? String(part) : part));
      return placed(
        text,
        lines,
        offsetOf(document, path),
        `${path.join(".") || "the profile"}: ${issue.message}`,
      );
    }),
  );
}

/** Where a field stands; for a field that is absent, the nearest parent that is there. */
function offsetOf(document: Document, path: (string | number)[]): number {
  for (let length = path.length; length > 0; length -= 1) {
    const node = document.getIn(path.slice(0, length), true);
    if (isNode(node) && node.range) return node.range[0];
  }
  return 0;
}

function placed(text: string, lines: LineCounter, offset: number, message: string): Problem {
  const { line, col } = lines.linePos(offset);
  return { message, line, column: col, excerpt: excerptAt(text, line, col) };
}

/** YAML of a profile; reading it back gives the same profile. */
export const renderProfileYaml = (profile: Profile): string => stringify(profile, { lineWidth: 110 });

/** The published JSON Schema (draft 2020-12) of a profile file, as it is written, before defaults are filled in. */
export const profileJsonSchema = (): unknown => z.toJSONSchema(profileSchema, { io: "input" });
