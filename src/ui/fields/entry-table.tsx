"use client";

import { useRef, useState, type ClipboardEvent, type FocusEvent, type KeyboardEvent } from "react";
import type { CellRow } from "@/core/site";
import { useLeaving } from "../frame/use-leaving";
import { laid, pastedCells, readTexts, textsOf, type CellProblem, type Texts } from "./entries";
import { useCountedUnread } from "./unread";

/**
 * A list as a table of cells with one empty row at its end. A row is read when it is left: a cell that does not fit is told
 * at the cell, and until all fit nothing of the list is saved and nothing that was typed is lost.
 */
export function EntryTable<Row>({
  path,
  label,
  value,
  onChange,
  of,
}: {
  path: string;
  /** Names the table, and each of its cells with the column and the row. */
  label: string;
  value: readonly Row[];
  onChange: (rows: Row[]) => void;
  of: CellRow<Row>;
}) {
  const { texts, problems, typed, type, leave } = useTexts(value, onChange, of);
  const table = useRef<HTMLTableElement>(null);
  const columns = of.cells.length;
  const rows = [...texts, Array.from({ length: columns }, () => "")];
  const focus = (row: number, column: number) =>
    table.current?.querySelector<HTMLInputElement>(`[data-cell="${row}.${column}"]`)?.focus();
  const put = (row: number, column: number, text: string) =>
    type(laid(texts, [[text]], { row, column }, columns));
  const keys = (e: KeyboardEvent, row: number, column: number) => {
    const to = { ArrowUp: row - 1, ArrowDown: row + 1, Enter: row + 1 }[e.key];
    if (to === undefined) return;
    e.preventDefault();
    if (e.key === "Enter") leave();
    focus(to, e.key === "Enter" ? 0 : column);
  };
  const paste = (e: ClipboardEvent, row: number, column: number) => {
    const text = e.clipboardData.getData("text");
    if (!/[\t\n]|\S\s+\S/.test(text)) return;
    e.preventDefault();
    const field = e.currentTarget as HTMLInputElement;
    const { selectionStart, selectionEnd, value: old } = field;
    void pastedCells(text, of).then((block) =>
      block
        ? type(laid(texts, block, { row, column }, columns))
        : put(
            row,
            column,
            old.slice(0, selectionStart ?? 0) + text.trim() + old.slice(selectionEnd ?? old.length),
          ),
    );
  };
  const leaveRow = (e: FocusEvent<HTMLTableRowElement>) => {
    if (typed && !e.currentTarget.contains(e.relatedTarget)) leave();
  };
  return (
    <div data-field={path} className="min-w-0">
      <table ref={table} className="table table-fixed" aria-label={label}>
        <thead>
          <tr>
            {of.cells.map((c) => (
              <th key={c.title}>
                <span className="label">{c.title}</span>
              </th>
            ))}
            <th className="w-8">
              <span className="sr-only">Row</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {rows.map((row, r) => (
            <tr key={r} onBlur={leaveRow}>
              {of.cells.map((c, column) => (
                <EntryCell
                  key={c.title}
                  place={`${r}.${column}`}
                  name={`${label}, ${c.title}, row ${r + 1}`}
                  text={row[column] ?? ""}
                  choices={c.choices}
                  example={texts.length === 0 ? `such as ${c.example}` : ""}
                  problem={problems.find((p) => p.row === r && (p.column ?? columns - 1) === column)}
                  onType={(text) => put(r, column, text)}
                  onKeyDown={(e) => keys(e, r, column)}
                  onPaste={(e) => paste(e, r, column)}
                />
              ))}
              <td>
                {r < texts.length && (
                  <button
                    type="button"
                    className="link quiet"
                    aria-label={`Remove row ${r + 1} of ${label}`}
                    onClick={() => leave(texts.filter((_, i) => i !== r))}
                  >
                    ×
                  </button>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

/** What is typed until the list takes it. */
function useTexts<Row>(value: readonly Row[], onChange: (rows: Row[]) => void, of: CellRow<Row>) {
  const [typed, setTyped] = useState<Texts | null>(null);
  const [problems, setProblems] = useState<CellProblem[]>([]);
  useCountedUnread(problems.length > 0);
  useLeaving(typed !== null);
  const leave = (texts = typed) => {
    if (!texts) return;
    const read = readTexts(texts, of);
    setProblems(read.problems);
    if (read.problems.length > 0) return setTyped(texts);
    setTyped(null);
    onChange(read.rows);
  };
  const type = (texts: Texts) => {
    setTyped(texts);
    // A cell that was told is read again while it is mended; the others wait until their row is left.
    if (problems.length > 0) {
      const still = readTexts(texts, of).problems;
      setProblems(problems.filter((p) => still.some((s) => s.row === p.row && s.column === p.column)));
    }
  };
  return { texts: typed ?? textsOf(value, of), problems, typed, type, leave };
}

function EntryCell({
  place,
  name,
  text,
  example,
  choices,
  problem,
  onType,
  onKeyDown,
  onPaste,
}: {
  place: string;
  name: string;
  text: string;
  example: string;
  choices: readonly string[] | undefined;
  problem: CellProblem | undefined;
  onType: (text: string) => void;
  onKeyDown: (e: KeyboardEvent) => void;
  onPaste: (e: ClipboardEvent) => void;
}) {
  return (
    <td>
      <input
        className="input"
        data-cell={place}
        aria-label={name}
        aria-invalid={problem !== undefined}
        value={text}
        placeholder={example}
        list={choices && `choices ${name}`}
        maxLength={400}
        autoComplete="off"
        spellCheck={false}
        onChange={(e) => onType(e.target.value)}
        onKeyDown={onKeyDown}
        onPaste={onPaste}
      />
      {choices && (
        <datalist id={`choices ${name}`}>
          {choices.map((c) => (
            <option key={c} value={c} />
          ))}
        </datalist>
      )}
      {problem && <div className="text-[0.86rem] text-error">{problem.message}</div>}
    </td>
  );
}
