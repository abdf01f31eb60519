import type { BuildView } from "@/core/sheet";
import { isOneOf, keysOf } from "@/core/text";
import { formatDate } from "@/core/units";
import { KNOWN, originOf } from "./origin";

/** One change of a sheet, as its history has it; the newest comes first. */
interface Entered {
  at: string;
  by: string;
  edits: readonly { path: string; from?: string | undefined }[];
}

const touches = (edited: string, path: string): boolean =>
  edited === path || edited.startsWith(`${path}.`) || path.startsWith(`${edited}.`);

/**
 * Where the value of any field comes from: another place where it is the same, the choice of the machine, or who entered it
 * and when; "" for what nobody ever touched.
 */
export const originWords =
  ({ build, context }: Pick<BuildView, "build" | "context">, history: readonly Entered[]) =>
  (path: string): string => {
    const last = history.find(({ edits }) => edits.some((e) => touches(e.path, path)));
    const source = last?.edits.find((e) => touches(e.path, path))?.from;
    const who = last ? `${last.by}, ${formatDate(last.at, context.site?.timeZone ?? "UTC")}` : "";
    if (source) return `${source}, imported by ${who}`;
    const same = isOneOf(keysOf(KNOWN), path) ? originOf(path, build.sheet, context) : undefined;
    if (same) return same;
    if (!last) return "";
    return last.edits.some((e) => e.path === "machine.id") ? "with the machine" : who;
  };
