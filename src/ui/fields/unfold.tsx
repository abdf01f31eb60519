"use client";

import { useState, type ReactNode } from "react";
import { usePrinting } from "../frame/use-printing";

/** What stands behind a decision, on demand: the line that names it opens it, and only then is it drawn. On paper it is open. */
export function Unfold({
  title,
  open = false,
  children,
}: {
  title: string;
  /** It stands open at first: there is something in it that must be seen. */
  open?: boolean;
  children: ReactNode;
}) {
  const isPrinting = usePrinting();
  const [toggled, setToggled] = useState<boolean | null>(null);
  const isOpen = isPrinting || (toggled ?? open);
  return (
    <details className="mt-1" open={isOpen} onToggle={(e) => !isPrinting && setToggled(e.currentTarget.open)}>
      <summary className="link quiet w-fit cursor-pointer text-[0.93rem]">{title}</summary>
      {isOpen && <div className="mt-1.5">{children}</div>}
    </details>
  );
}
