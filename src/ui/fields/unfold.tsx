import type { ReactNode } from "react";

/** What stands behind a decision, on demand: the line that names it opens it. */
export const Unfold = ({
  title,
  open = false,
  children,
}: {
  title: string;
  /** It stands open at first: there is something in it that must be seen. */
  open?: boolean;
  children: ReactNode;
}) => (
  <details className="mt-1" open={open || undefined}>
    <summary className="link quiet w-fit cursor-pointer text-[0.93rem]">{title}</summary>
    <div className="mt-1.5">{children}</div>
  </details>
);
