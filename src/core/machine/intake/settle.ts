import type { Claim, MachineDocument } from "../facts/document";
import { agree, better } from "./disputes";
import type { Item } from "./lists";
import type { Merge } from "./merging";

/** The value that stands when a tool says something about a fact that another has told; the other is kept as a dispute. */
export function settle({ document, source }: Merge, path: string, old: unknown, given: unknown): unknown {
  const oldSource = document.sources[path];
  const claims = (document.disputes[path] ?? []).filter((c) => c.source.tool !== source.tool);
  const isAnother = old !== null && old !== undefined && oldSource && oldSource.tool !== source.tool;
  const value = isAnother && agree(path, old, given) ? better(old, given) : given;
  if (isAnother && !agree(path, old, given)) claims.push({ value: old, source: oldSource });
  keepClaims(
    document,
    path,
    claims.filter((c) => !agree(path, c.value, value)),
  );
  return value;
}

function keepClaims(document: MachineDocument, path: string, claims: Claim[]): void {
  if (claims.length > 0) document.disputes[path] = claims;
  else delete document.disputes[path];
}

/** A bay that was given by hand stands; what the tool called it is kept beside. */
export function holdsBay({ document, source }: Merge, drive: Item, given: unknown, path: string): boolean {
  const id = String(drive.id);
  if (!Object.hasOwn(document.typed.placed, id)) return false;
  const placed = document.typed.placed[id];
  const others = (document.disputes[path] ?? []).filter((c) => c.source.tool !== source.tool);
  keepClaims(document, path, placed === given ? others : [...others, { value: given, source }]);
  return true;
}
