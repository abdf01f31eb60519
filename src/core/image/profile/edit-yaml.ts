import { parseDocument, type Document } from "yaml";
import type { Profile } from "./profile";
import { parseProfileYaml, renderProfileYaml } from "./profile-yaml";

type Path = (string | number)[];

/**
 * The text of a profile with the changes of a form carried in: only what differs is touched, so comments, order and
 * the way of writing stay. A text that cannot be read is written anew.
 */
export function editProfileYaml(yaml: string, edited: Profile): string {
  const before = parseProfileYaml(yaml);
  if (!before.ok) return renderProfileYaml(edited);
  const document = parseDocument(yaml);
  carry(document, [], before.value, edited);
  const text = document.toString({ lineWidth: 110 });
  const read = parseProfileYaml(text);
  // The document keeps comments only as long as it says the same; what was typed comes first.
  return read.ok && JSON.stringify(read.value) === JSON.stringify(edited) ? text : renderProfileYaml(edited);
}

const isBag = (value: unknown): value is Record<string, unknown> =>
  typeof value === "object" && value !== null && !Array.isArray(value);

/** Walks both values and sets what differs; a list of another length is set as a whole. */
function carry(document: Document, path: Path, before: unknown, after: unknown): void {
  if (JSON.stringify(before) === JSON.stringify(after)) return;
  if (isBag(before) && isBag(after)) {
    for (const key of new Set([...Object.keys(before), ...Object.keys(after)]))
      carry(document, [...path, key], before[key], after[key]);
    return;
  }
  if (
    Array.isArray(before) &&
    Array.isArray(after) &&
    before.length === after.length &&
    document.hasIn(path)
  ) {
    after.forEach((value, i) => carry(document, [...path, i], before[i], value));
    return;
  }
  if (after === undefined) document.deleteIn(path);
  else document.setIn(path, document.createNode(after));
}
