import { diffDocuments, type Edit, type Hand, valueAt } from "../../document";
import type { ControllerPart } from "../facts/controller-schema";
import { sourceSchema, type MachineDocument } from "../facts/document";
import { factsSchema, type Facts } from "../facts/facts";
import { typeFact } from "./by-hand";

/** What stands of the controller, as its form writes it: a fact that nobody told is empty there. */
export const writtenController = (known: Facts["controller"]): ControllerPart => ({
  present: known?.present ?? null,
  address: known?.address ?? "",
  virtualMedia: known?.virtualMedia ?? "unknown",
  mediaBytesPerSecond: known?.mediaBytesPerSecond ?? null,
  loginKept: known?.loginKept ?? "",
});

/** The machine with what was typed of its controller: only what differs is a typed fact, the rest keeps its source. */
export function controllerAfter(
  document: MachineDocument,
  part: ControllerPart,
  hand: Hand,
): MachineDocument {
  const stands = writtenController(document.facts.controller);
  const typed = diffDocuments(stands, part).map(
    ({ path, after }) => [path, after === "" ? null : after] as const,
  );
  if (typed.length === 0) return document;
  const { present, ...rest } = Object.fromEntries<unknown>(typed);
  const values = typeof present === "boolean" ? { present, ...rest } : rest;
  const next = typeFact(document, "controller", values, hand.at, hand.by);
  if (present !== null) return next;
  delete next.facts.controller?.present;
  delete next.sources["controller.present"];
  return next;
}

const AT = "facts.controller";
const SOURCES = "sources.controller.";

/** A change of a machine as the form of the controller would have written it. What it does not write stays as it is. */
export function controllerRetold(edit: Edit): Edit[] {
  if (edit.path.startsWith(SOURCES)) return [];
  const none = writtenController(undefined);
  if (edit.path === AT) {
    const [before, after] = [edit.before, edit.after].map((side) =>
      factsSchema.shape.controller.safeParse(side ?? {}),
    );
    if (!before?.success || !after?.success) return [edit];
    if (Object.keys({ ...before.data, ...after.data }).some((key) => !(key in none))) return [edit];
    const [was, is] = [before, after].map(({ data }) => ({ controller: writtenController(data) }));
    return diffDocuments(was, is);
  }
  const key = edit.path.startsWith(`${AT}.`) ? edit.path.slice(AT.length + 1) : "";
  if (!(key in none)) return [edit];
  const empty = valueAt(none, key);
  return [{ path: `controller.${key}`, before: edit.before ?? empty, after: edit.after ?? empty }];
}

/** Taking a change back also gives each fact of the controller the source that it had before. */
export function controllerSourcesBack(
  before: MachineDocument,
  after: MachineDocument,
  change: readonly Edit[],
): MachineDocument {
  const sources = { ...after.sources };
  for (const { path, before: old } of change.filter((e) => e.path.startsWith(SOURCES))) {
    const [name = "", field] = path.slice(SOURCES.length).split(".");
    const key = `controller.${name}`;
    const stood = sources[key] === after.sources[key] ? before.sources[key] : sources[key];
    const source = field ? { ...stood, [field]: old } : old;
    if (source === null) delete sources[key];
    else sources[key] = sourceSchema.parse(source);
  }
  return { ...after, sources };
}
