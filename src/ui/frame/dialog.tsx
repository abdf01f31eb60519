"use client";

import { useEffect, useRef, type ReactNode } from "react";

/** A slip of paper over the sheet. Escape and a click beside it close it; focus goes back to where it was. */
export function Slip({
  open,
  onClose,
  title,
  children,
  wide = false,
}: {
  open: boolean;
  onClose: () => void;
  title: string;
  children: ReactNode;
  wide?: boolean;
}) {
  const ref = useRef<HTMLDialogElement>(null);
  useEffect(() => {
    const dialog = ref.current;
    if (!dialog) return;
    if (open && !dialog.open) dialog.showModal();
    if (!open && dialog.open) dialog.close();
  }, [open]);
  return (
    <dialog
      ref={ref}
      aria-label={title}
      onClose={onClose}
      onClick={(e) => e.target === ref.current && onClose()}
      className={`m-auto max-h-[86dvh] w-[min(94vw,${wide ? "60rem" : "36rem"})] overflow-auto border bg-base-100 p-0 text-base-content backdrop:bg-black/45`}
      style={{ borderColor: "var(--color-base-content)", width: `min(94vw, ${wide ? "60rem" : "36rem"})` }}
    >
      {open && (
        <div className="p-5">
          <h2 className="mb-3 text-lg font-semibold">{title}</h2>
          {children}
        </div>
      )}
    </dialog>
  );
}
