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
    saving: "saving …",
    refused: "not saved – kept here until it fits",
    "not saved": "not saved yet – kept here, trying again",
  };
  const isWell = unread === 0 && (draft.status === "saved" || draft.status === "saving");
  return (
    <>
      <span role="status" className={isWell ? "quiet" : "font-semibold text-error"}>
        {unread > 0
          ? `${unread === 1 ? "one field" : `${unread} fields`} cannot be read and ${unread === 1 ? "is" : "are"} not saved`
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
      <Again text="undo" possible={canUndo} act={undo} />
      <Again text="redo" possible={canRedo} act={redo} />
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
