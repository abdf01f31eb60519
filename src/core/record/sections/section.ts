import type { z } from "zod";
import type { Procedure, ProcedureKind } from "../../procedure";
import type { LoggedEvent, RunState } from "../../run";

/** What a record is drawn from: what the run froze at its start, its log, and what follows from that. */
export interface RecordGround {
  procedure: Procedure;
  log: readonly LoggedEvent[];
  state: RunState;
  /** When each event of the log happened. */
  times: readonly string[];
}

/** One part of a record: for which kinds of procedure, its shape, and how it is drawn. */
export interface Section<Shape extends z.ZodRawShape = z.ZodRawShape> {
  when: (kind: ProcedureKind) => boolean;
  shape: Shape;
  of: (ground: RecordGround) => object;
}

/** The maker of sections: what `of` gives must fit the shape. */
export const section = <Shape extends z.ZodRawShape>(
  when: Section["when"],
  shape: Shape,
  of: (ground: RecordGround) => z.input<z.ZodObject<Shape>>,
): Section<Shape> => ({ when, shape, of });

export const always = (): boolean => true;
export const ofBuild = (kind: ProcedureKind): boolean => kind === "build";

/** The title of a step by its id; the id itself where there is no such step. */
export const titleOf = ({ procedure }: RecordGround, id: string): string =>
  procedure.steps.find((s) => s.id === id)?.title ?? id;
