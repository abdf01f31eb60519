"use client";

import type { WrittenDraft } from "./use-written";
import { placed } from "./placed";
import { SaveState } from "./save-state";
import { StaleSlip } from "./stale-slip";

/** The foot of a form that saves by itself: how it stands, why it was refused, and both versions when they clash. */
export function WrittenFoot<P>({
  what,
  draft,
  names,
  timeZone,
}: {
  /** What is written, in a word: "site". */
  what: string;
  draft: WrittenDraft<P>;
  names: Readonly<Record<string, string>>;
  timeZone: string;
}) {
  const { problems, clash, view } = draft.draft;
  return (
    <>
      {problems.length > 0 && (
        <span role="alert" className="max-w-[30rem] text-error [overflow-wrap:anywhere]">
          {problems.map((p) => placed(p, names).message).join("; ")}
        </span>
      )}
      <SaveState draft={draft} savedAt={view.updatedAt} timeZone={timeZone} />
      {clash && (
        <StaleSlip {...{ what, clash, names, settle: draft.settle }} standing={clash.view.document} />
      )}
    </>
  );
}
