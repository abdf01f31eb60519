import type { ReactNode } from "react";

export interface TitleCell {
  label: string;
  value: ReactNode;
  grow?: boolean;
  mono?: boolean;
}

/** The title block at the foot of every sheet: number, subject, revision, drawn, checked, state, and the next action. */
export function TitleBlock({ cells, children }: { cells: TitleCell[]; children?: ReactNode }) {
  return (
    <footer className="sticky bottom-0 z-20 mt-auto border-t-2 bg-base-100 border-base-content">
      <div className="flex flex-wrap items-stretch">
        {cells.map((cell) => (
          <div
            key={cell.label}
            className={`min-w-0 border-r px-3 py-1.5 ${cell.grow ? "flex-[1_1_14rem]" : ""} border-base-300`}
          >
            <div className="label">{cell.label}</div>
            <div className={`[overflow-wrap:anywhere] ${cell.mono ? "value" : "font-medium"}`}>
              {cell.value}
            </div>
          </div>
        ))}
        {children && <div className="ml-auto flex flex-wrap items-center gap-2 px-3 py-1.5">{children}</div>}
      </div>
    </footer>
  );
}
