"use client";

import { useEffect, useRef, type ReactNode, type RefObject } from "react";

/** A slip of paper over the sheet. Escape and a click beside it close it; focus goes back to where it was, or to where the work goes on. */
export function Slip({
  open,
  onClose,
  title,
  children,
  wide = false,
  after,
}: {
  open: boolean;
  onClose: () => void;
  title: string;
  children: ReactNode;
  wide?: boolean;
  /** Where the hands go on once it is closed; without it, where they were before. */
  after?: RefObject<HTMLElement | null>;
}) {
  const ref = useRef<HTMLDialogElement>(null);
  useEffect(() => {
    const dialog = ref.current;
    if (!dialog) return;
    if (open && !dialog.open) {
      dialog.showModal();
      // The browser takes the first thing that can have the focus, which is often no field: what is typed would be lost.
      const field = dialog.querySelector<HTMLElement>(
        "[autofocus], input:not([type=hidden]), textarea, select",
      );
      field?.focus();
    }
    if (!open && dialog.open) dialog.close();
    // With another title it is another slip: a key may ask for that before the browser has told that the last one is gone.
  }, [open, title]);
  return (
    <dialog
      ref={ref}
      aria-label={title}
      // First the sheet knows that it is closed, then it goes: a key pressed in between belongs to the sheet.
      onCancel={(e) => {
        // A chooser of files inside tells of its own end in the same way.
        if (e.target !== ref.current) return;
        e.preventDefault();
        onClose();
      }}
      onClose={() => {
        // What the browser tells late is of the slip before, and not of the one that lies here now.
        if (ref.current?.open) return;
        // Where the sheet has closed it, it knows; it may have asked for another slip since.
        if (open) onClose();
        after?.current?.focus();
      }}
      onClick={(e) => e.target === ref.current && onClose()}
      className="modal"
    >
      {open && (
        <div className={`modal-box ${wide ? "w-[min(94vw,60rem)]" : "w-[min(94vw,36rem)]"}`}>
          <h2 className="mb-3 text-lg font-semibold">{title}</h2>
          {children}
        </div>
      )}
    </dialog>
  );
}
