"use client";

import { useState, type ReactNode } from "react";

/**
 * A fold: its heading and one line of what is in it. It begins open when there is something that wants doing, and does not
 * fold under the hands because that has just been done.
 */
export function Fold({
  title,
  note,
  open = false,
  children,
}: {
  title: string;
  note?: string;
  open?: boolean;
  children: ReactNode;
}) {
  const [opened, setOpened] = useState(open);
  return (
    <details
      className="mb-2 border-b border-base-300"
      open={opened}
      onToggle={(e) => setOpened(e.currentTarget.open)}
    >
      <summary className="flex cursor-pointer list-none items-baseline gap-3 py-1.5">
        <span className="text-[1.07rem] font-semibold">{title}</span>
        {note && <span className="quiet text-[0.93rem]">{note}</span>}
        <span aria-hidden="true" className="fold-mark quiet ml-auto" />
      </summary>
      <div className="pt-1 pb-4">{children}</div>
    </details>
  );
}
