import { wrap, type Remote } from "comlink";
import type { SheetJudge } from "@/core/sheet";

/** Starts a judge beside the page. */
export function startJudge(): { judge: Remote<SheetJudge>; end: () => void } {
  const thread = new Worker(new URL("../../workers/judge-worker.ts", import.meta.url), { type: "module" });
  return { judge: wrap<SheetJudge>(thread), end: () => thread.terminate() };
}
