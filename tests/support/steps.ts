import { sightWords, type Operation, type OperationOf } from "@/core/work";

/** A step as the naming of a drive; undefined where it is none. */
export const naming = (step: Operation | undefined): OperationOf<"name drive"> | undefined =>
  step?.kind === "name drive" ? step : undefined;

/** A step as what is read back from the console; undefined where it is not. */
export const asked = (step: Operation | undefined): OperationOf<"read back"> | undefined =>
  step?.kind === "read back" ? step : undefined;

/** What a step says that is to be seen. */
export const sees = (step: Operation | undefined): string[] | undefined => step?.sees.map(sightWords);
