"use client";

import { useState } from "react";
import { valueAt } from "@/core/document";
import { shown } from "@/core/text";
import { formatDateTime } from "@/core/units";
import { Slip } from "../frame/dialog";
import type { SheetState } from "./use-sheet";

/** Two versions of one sheet: field by field, what you wrote and what stands there now; you choose. */
export function StaleSlip({ state, names }: { state: SheetState; names: Readonly<Record<string, string>> }) {
  const { clash } = state;
  const [theirs, setTheirs] = useState<string[]>([]);
  if (!clash) return null;
  const standing = (path: string): unknown => valueAt(clash.view.build.sheet, path);
  const keep = clash.mine.filter((e) => !theirs.includes(e.path));
  return (
    <Slip open wide onClose={() => undefined} title="This sheet was changed by another hand">
      <p className="mb-3">
        {clash.by} saved it on {formatDateTime(clash.at, "UTC")} UTC while you were writing. Your change was
        not saved and nothing of it is lost. Choose for each field.
      </p>
      <table className="table">
        <thead>
          <tr>
            <th>Field</th>
            <th>Yours</th>
            <th>Stands there now</th>
          </tr>
        </thead>
        <tbody>
          {clash.mine.map((e) => (
            <tr key={e.path}>
              <td>{names[e.path] ?? e.path}</td>
              {[false, true].map((other) => (
                <td key={String(other)}>
                  <label className="flex cursor-pointer items-baseline gap-2">
                    <input
                      className="radio radio-xs"
                      type="radio"
                      name={e.path}
                      checked={theirs.includes(e.path) === other}
                      onChange={() =>
                        setTheirs(other ? [...theirs, e.path] : theirs.filter((p) => p !== e.path))
                      }
                    />
                    <span className="value [overflow-wrap:anywhere]">
                      {shown(other ? standing(e.path) : e.after)}
                    </span>
                  </label>
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
      <button type="button" className="btn btn-primary mt-4" onClick={() => state.settle(keep)}>
        Go on with this choice
      </button>
    </Slip>
  );
}
