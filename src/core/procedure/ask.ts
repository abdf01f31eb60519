// What is asked of procedures, without their schemas: pages ask it that read none.
import type { BuildBasis, Procedure } from "./procedure";

/** What a build stands on; null of a procedure without a sheet. */
export const buildBasis = (procedure: Procedure): BuildBasis | null =>
  procedure.kind === "build" ? procedure.basis : null;

/** What it is called by, with the revision of a build: "B-0001 rev A". */
export const numberWords = (procedure: Procedure): string =>
  procedure.kind === "build" ? `${procedure.number} rev ${procedure.basis.revision}` : procedure.number;
