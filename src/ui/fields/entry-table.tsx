"use client";

import {
  memo,
  useMemo,
  useRef,
  useState,
  type ClipboardEvent,
  type FocusEvent,
  type FormEvent,
  type KeyboardEvent,
  type MouseEvent,
} from "react";
import type { Cell, CellRow } from "@/core/site";
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
  const empty = useMemo(() => Array.from({ length: columns }, () => ""), [columns]);
  const rows = [...texts, empty];
  const focus = (row: number, column: number) =>
    table.current?.querySelector<HTMLInputElement>(`[data-cell="${row}.${column}"]`)?.focus();
  const put = (row: number, column: number, text: string) =>
    type(laid(texts, [[text]], { row, column }, columns));
  const keys = (e: KeyboardEvent) => {
    const at = cellOf(e.target);
    if (!at) return;
    const to = { ArrowUp: at.row - 1, ArrowDown: at.row + 1, Enter: at.row + 1 }[e.key];
    if (to === undefined) return;
    e.preventDefault();
    if (e.key === "Enter") leave();
    focus(to, e.key === "Enter" ? 0 : at.column);
  };
  const paste = (e: ClipboardEvent) => {
    const at = cellOf(e.target);
    const text = e.clipboardData.getData("text");
    if (!at || !/[\t\n]|\S\s+\S/.test(text)) return;
    e.preventDefault();
    const { selectionStart, selectionEnd, value: old } = e.target as HTMLInputElement;
    void pastedCells(text, of).then((block) =>
      block
        ? type(laid(texts, block, at, columns))
        : put(
            at.row,
            at.column,
            old.slice(0, selectionStart ?? 0) + text.trim() + old.slice(selectionEnd ?? old.length),
          ),
    );
  };
  const leaveRow = (e: FocusEvent) => {
    const row = (e.target as HTMLElement).closest("tr");
    if (typed && !row?.contains(e.relatedTarget)) leave();
  };
  const change = (e: FormEvent) => {
    const at = cellOf(e.target);
    if (at) put(at.row, at.column, (e.target as HTMLInputElement).value);
  };
  const remove = (e: MouseEvent) => {
    const row = (e.target as HTMLElement).closest<HTMLElement>("[data-remove]")?.dataset.remove;
    if (row !== undefined) leave(texts.filter((_, i) => i !== Number(row)));
  };
  // What happens in a cell is heard by the table, so that a row which is not typed in is not drawn again.
  return (
    <div data-field={path} className="min-w-0">
      <table
        ref={table}
        className="table table-fixed"
        aria-label={label}
        onChange={change}
        onKeyDown={keys}
        onPaste={paste}
        onBlur={leaveRow}
        onClick={remove}
      >
        <Headings titles={of.cells.map((c) => c.title)} />
        <tbody>
          {rows.map((row, r) => (
            <EntryRow
              key={r}
              {...{ row, r, label }}
              cells={of.cells as readonly Cell<unknown>[]}
              isFirst={texts.length === 0}
              isLast={r === texts.length}
              problems={problems.some((p) => p.row === r) ? problems : NONE}
            />
          ))}
        </tbody>
      </table>
    </div>
  );
}

const Headings = ({ titles }: { titles: readonly string[] }) => (
  <thead>
    <tr>
      {titles.map((title) => (
        <th key={title}>
          <span className="label">{title}</span>
        </th>
      ))}
      <th className="w-8">
        <span className="sr-only">Row</span>
      </th>
    </tr>
  </thead>
);

const NONE: readonly CellProblem[] = [];

/** Which cell of the table an event comes from. */
function cellOf(target: EventTarget): { row: number; column: number } | null {
  const [row, column] = ((target as HTMLElement).dataset.cell ?? "").split(".").map(Number);
  return row === undefined || column === undefined ? null : { row, column };
}

const EntryRow = memo(function EntryRow({
  row,
  r,
  label,
  cells,
  isFirst,
  isLast,
  problems,
}: {
  row: readonly string[];
  r: number;
  label: string;
  cells: readonly Cell<unknown>[];
  /** The list is empty: its one row shows examples. */
  isFirst: boolean;
  isLast: boolean;
  problems: readonly CellProblem[];
}) {
  return (
    <tr>
      {cells.map((c, column) => (
        <EntryCell
          key={c.title}
          place={`${r}.${column}`}
          name={`${label}, ${c.title}, row ${r + 1}`}
          text={row[column] ?? ""}
          choices={c.choices}
          example={isFirst ? `for example ${c.example}` : ""}
          problem={problems.find((p) => p.row === r && (p.column ?? cells.length - 1) === column)}
        />
      ))}
      <td>
        {!isLast && (
          <button
            type="button"
            className="link quiet"
            data-remove={r}
            aria-label={`Remove row ${r + 1} of ${label}`}
          >
            ×
          </button>
        )}
      </td>
    </tr>
  );
});

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
  const shown = useMemo(() => textsOf(value, of), [value, of]);
  return { texts: typed ?? shown, problems, typed, type, leave };
}

/** What is typed into a cell is heard by its table. */
const heardAbove = (): void => undefined;

function EntryCell({
  place,
  name,
  text,
  example,
  choices,
  problem,
}: {
  place: string;
  name: string;
  text: string;
  example: string;
  choices: readonly string[] | undefined;
  problem: CellProblem | undefined;
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
        onChange={heardAbove}
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
