import { machineDocumentSchema, type MachineDocument } from "../facts/document";

// What people tell of a machine by hand, beside what tools say.

const same = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b);

/** A fact that a person typed: recorded with its own source, so that an import can be told from it. */
export function typeFact(
  document: MachineDocument,
  group: "chassis" | "controller",
  values: Readonly<Record<string, unknown>>,
  at: string,
  by: string,
): MachineDocument {
  const next = structuredClone(document);
  const target: Record<string, unknown> = (next.facts[group] ??= {});
  for (const [key, value] of Object.entries(values)) {
    if (same(target[key] ?? null, value)) continue;
    target[key] = value;
    next.sources[`${group}.${key}`] = { tool: "typed", from: by, at };
  }
  return machineDocumentSchema.parse(next);
}

/** Puts a drive into a bay by hand (or, with null, takes that back): it stays there by its identity. */
export function placeDrive(
  document: MachineDocument,
  driveId: string,
  bay: string | null,
  at: string,
  by: string,
): MachineDocument {
  const next = structuredClone(document);
  const drive = next.facts.drives.find((d) => d.id === driveId);
  if (!drive) return next;
  const path = `drives.${driveId}.bay`;
  if (bay === null) {
    delete next.typed.placed[driveId];
    const said = next.disputes[path]?.at(-1)?.value;
    drive.bay = typeof said === "string" ? said : null;
    delete next.disputes[path];
    delete next.sources[path];
    return next;
  }
  const other = next.facts.drives.find((d) => d.id !== driveId && d.bay === bay && d.missingSince === null);
  if (other) {
    other.bay = null;
    delete next.typed.placed[other.id];
  }
  next.typed.placed[driveId] = bay;
  drive.bay = bay;
  next.sources[path] = { tool: "typed", from: by, at };
  return next;
}
