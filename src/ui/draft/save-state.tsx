"use client";

import { formatDateTime } from "@/core/units";
import { useUnread } from "../fields/unread";
import { useKeys } from "../frame/use-keys";

/** What a draft lets a person know, and do about it. */
export interface Saving {
  status: "saved" | "saving" | "refused" | "not saved";
  canUndo: boolean;
  canRedo: boolean;
  undo(): Promise<void>;
  redo(): Promise<void>;
}

/** Whether all that was typed is with the server, with undo and redo, also by their keys. */
export function SaveState({
  draft,
  savedAt,
  timeZone,
}: {
  draft: Saving;
  savedAt: string;
  timeZone: string;
}) {
  const unread = useUnread();
  const words = {
    saved: `saved ${formatDateTime(savedAt, timeZone)}${timeZone === "UTC" ? " UTC" : ""}`,
    saving: "saving…",
    refused: "Not saved: correct the marked field. Your entry is kept in this browser.",
    "not saved":
      "Not saved: the server does not respond. Your entry is kept in this browser; Derrick keeps trying.",
  };
  const isWell = unread === 0 && (draft.status === "saved" || draft.status === "saving");
  return (
    <>
      <span role="status" className={isWell ? "quiet" : "font-semibold text-error"}>
        {unread > 0
          ? `${unread === 1 ? "One field is invalid and" : `${unread} fields are invalid and`} not saved`
          : words[draft.status]}
      </span>
      <UndoRedo {...draft} />
    </>
  );
}

/** Undo and redo, as words and by their keys. */
export function UndoRedo({ canUndo, canRedo, undo, redo }: Omit<Saving, "status">) {
  useKeys("u", () => void undo());
  useKeys("shift+u", () => void redo());
  return (
    <>
      <Again text="Undo" possible={canUndo} act={undo} />
      <Again text="Redo" possible={canRedo} act={redo} />
    </>
  );
}

const Again = ({ text, possible, act }: { text: string; possible: boolean; act: () => Promise<void> }) => (
  <button
    type="button"
    className="link disabled:no-underline disabled:opacity-70"
    disabled={!possible}
    onClick={() => void act()}
  >
    {text}
  </button>
);
