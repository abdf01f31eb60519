"use client";

import { useState } from "react";
import { valueAt, type Edit } from "@/core/document";
import { shown } from "@/core/text";
import { Slip } from "../frame/dialog";
import { Moment } from "../frame/person";

interface Clash {
  by: string;
  at: string;
  mine: readonly Edit[];
}

/** Two versions of one document: field by field, what you wrote and what stands there now; you choose. */
export function StaleSlip({
  what,
  clash,
  standing,
  names,
  settle,
}: {
  /** What was changed, in a word: "sheet". */
  what: string;
  clash: Clash;
  /** The document as the other hand left it. */
  standing: unknown;
  names: Readonly<Record<string, string>>;
  settle: (keep: readonly Edit[]) => void;
}) {
  const [theirs, setTheirs] = useState<string[]>([]);
  const keep = clash.mine.filter((e) => !theirs.includes(e.path));
  const choose = (path: string, other: boolean): void =>
    setTheirs(other ? [...theirs, path] : theirs.filter((p) => p !== path));
  return (
    <Slip open wide onClose={() => undefined} title={`Edit conflict: someone else saved this ${what}`}>
      <p className="mb-3">
        {clash.by} saved it on <Moment at={clash.at} /> while you were editing. Your change was not saved, and
        your entries are kept. Choose a value for each field.
      </p>
      <table className="table">
        <thead>
          <tr>
            <th>Field</th>
            <th>Your value</th>
            <th>Saved value</th>
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
                      onChange={() => choose(e.path, other)}
                    />
                    <span className="value [overflow-wrap:anywhere]">
                      {shown(other ? valueAt(standing, e.path) : e.after)}
                    </span>
                  </label>
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
      <button type="button" className="btn btn-primary mt-4" onClick={() => settle(keep)}>
        Save this choice
      </button>
    </Slip>
  );
}
