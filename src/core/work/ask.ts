// What is asked of operations, without their schemas: pages ask it that read none.
import type { Guard, Measure, MeasureOf, Operation, Report } from "./operation";

/** An operation that is passed by what is typed from the console, and never by a word of consent. */
export const isGuard = (operation: Operation): operation is Guard =>
  operation.kind === "name drive" || operation.kind === "read back";

/** The report by which the boot service ends an operation; null where a person does. */
export const reportThatEnds = ({ lent }: Pick<Operation, "lent">): Report | null => lent[0]?.report ?? null;

/** The measure of a kind that an operation gives. */
export const measureOf = <Of extends Measure["of"]>(
  { measures }: Pick<Operation, "measures">,
  of: Of,
): MeasureOf<Of> | undefined => measures.find((m): m is MeasureOf<Of> => m.of === of);

/** The machine starts from off in it. */
export const startsFromOff = ({ effects }: Pick<Operation, "effects">): boolean =>
  effects.some((e) => e.do === "switch power" && e.to === "off");

/** The machine restarts in it. */
export const restarts = ({ effects }: Pick<Operation, "effects">): boolean =>
  effects.some((e) => e.do === "restart");
