import type { ReactNode } from "react";

/** A plain sheet: a heading, an optional line of explanation, and its content inside the drawing border. */
export function Page({
  title,
  lead,
  aside,
  children,
}: {
  title: string;
  lead?: ReactNode;
  aside?: ReactNode;
  children: ReactNode;
}) {
  return (
    <div className="mx-auto w-full max-w-[84rem] flex-1 px-5 py-4">
      <div className="mb-4 flex flex-wrap items-end justify-between gap-3">
        <div>
          <h1 className="text-2xl leading-tight font-semibold">{title}</h1>
          {lead && <p className="quiet mt-0.5 max-w-[70ch]">{lead}</p>}
        </div>
        {aside}
      </div>
      {children}
    </div>
  );
}

/** A ruled heading inside a sheet. */
export function Ruled({
  title,
  children,
  id,
  note,
}: {
  title: string;
  children: ReactNode;
  id?: string;
  note?: ReactNode;
}) {
  return (
    <section className="mb-6" id={id} aria-label={title}>
      <h2 className="mb-2 flex flex-wrap items-baseline gap-x-3 border-b pb-0.5 text-[1.07rem] font-semibold border-base-content">
        {title}
        {note && <span className="quiet text-[0.86rem] font-normal">{note}</span>}
      </h2>
      {children}
    </section>
  );
}
