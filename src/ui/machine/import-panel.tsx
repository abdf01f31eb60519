"use client";

import { useRouter } from "next/navigation";
import { useState } from "react";
import type { Answer, ImportPreview } from "@/contract";
import { factWords } from "@/core/machine";
import type { Problem } from "@/core/result";
import { asked, sending } from "../frame/ask";
import { Problems } from "../frame/problems";
import { ImportWell, type DroppedText } from "./import-well";

/** Sends texts to be read; nothing is changed by it. */
export async function readThem(
  machineId: string | null,
  texts: DroppedText[],
): Promise<Answer<ImportPreview>> {
  return asked("/api/v1/imports/preview", "no output was imported", sending({ machineId, texts }));
}

const MEANWHILE =
  "The machine was saved meanwhile, so nothing was applied. The table shows what would change now: check it, then apply.";

/** The import well of a machine's sheet: what was understood, ignored and refused, what would change, and then: take it over. */
export function ImportPanel({
  machineId,
  version,
  waiting,
}: {
  machineId: string;
  version: number;
  waiting: { hash: string; name: string; text: string }[];
}) {
  const router = useRouter();
  const [texts, setTexts] = useState<DroppedText[]>([]);
  const [preview, setPreview] = useState<ImportPreview | null>(null);
  const [problems, setProblems] = useState<Problem[]>([]);
  const [hash, setHash] = useState<string | null>(null);
  const [seen, setSeen] = useState(version);

  const look = async (dropped: DroppedText[], waitingHash: string | null = null) => {
    setTexts(dropped);
    setHash(waitingHash);
    setSeen(version);
    const answer = await readThem(machineId, dropped);
    setPreview(answer.ok ? answer.value : null);
    setProblems(answer.ok ? [] : answer.problems);
  };
  const take = async () => {
    if (seen !== version) {
      await look(texts, hash);
      return setProblems([{ message: MEANWHILE }]);
    }
    const answer = await asked<number>(
      "/api/v1/imports",
      "nothing was changed",
      sending({ machineId, version, texts, waiting: hash }),
    );
    if (!answer.ok) return setProblems(answer.problems);
    setPreview(null);
    router.refresh();
  };

  return (
    <div>
      {waiting.map((w) => (
        <p
          key={w.hash}
          className="my-2 flex items-center gap-3 border-l-4 bg-base-200 px-3 py-2 border-warning"
        >
          A bundle was received from the collector ({w.name}).
          <button
            type="button"
            className="btn"
            onClick={() => look([{ name: w.name, text: w.text }], w.hash)}
          >
            Check
          </button>
        </p>
      ))}
      <ImportWell onTexts={(t) => look(t)} label="Drop the output of tools, or a bundle" />
      <Problems problems={problems} />
      {preview && (
        <div className="space-y-3">
          <PreviewTables preview={preview} />
          <div className="flex gap-3">
            <button
              type="button"
              className="btn btn-primary"
              disabled={preview.understood.length === 0}
              onClick={take}
            >
              {preview.changeCount === 0
                ? "No changes: update the inventory date"
                : `Apply ${preview.changeCount} ${preview.changeCount === 1 ? "change" : "changes"}`}
            </button>
            <button type="button" className="btn" onClick={() => setPreview(null)}>
              Discard
            </button>
          </div>
        </div>
      )}
    </div>
  );
}

/** What was dropped before the page was left is here still, and was not read since. */
export const ReadAgain = ({ count, onRead }: { count: number; onRead: () => void }) => (
  <p className="my-2 flex flex-wrap items-center gap-3 border-l-4 bg-base-200 px-3 py-1.5 border-info">
    {count === 1 ? "The pasted text is" : `The ${count} pasted texts are`} kept here.
    <button type="button" className="btn" onClick={onRead}>
      Import {count === 1 ? "it" : "them"} again
    </button>
  </p>
);

const KINDS = { new: "new", changed: "changed", gone: "gone", back: "restored" } as const;

/** What was understood and ignored by tool, what was refused and where, and every fact that would change. */
export function PreviewTables({ preview }: { preview: ImportPreview }) {
  return (
    <>
      {preview.sameSerial.length > 0 && (
        <Problems
          title="Chassis serial number in use"
          problems={[
            {
              message: `${preview.sameSerial.map((m) => m.name).join(", ")} has the same serial number. Check that this is the right machine.`,
            },
          ]}
        />
      )}
      {preview.rejected.map((r, i) => (
        <Problems
          key={i}
          title={`${r.from}: rejected${r.tool ? ` (${r.tool})` : ""}`}
          problems={r.problems}
        />
      ))}
      {preview.understood.length > 0 && (
        <table className="table" aria-label="Recognised output">
          <thead>
            <tr>
              <th>Tool</th>
              <th>Recognised</th>
              <th>Ignored</th>
            </tr>
          </thead>
          <tbody>
            {preview.understood.map((u, i) => (
              <tr key={i}>
                <td className="value whitespace-nowrap" title={u.from}>
                  {u.tool}
                </td>
                <td>
                  {u.words}
                  {u.warnings.map((w) => (
                    <div key={w} className="text-warning">
                      {w}
                    </div>
                  ))}
                </td>
                <td className="quiet">
                  {u.ignored.length === 0
                    ? "–"
                    : u.ignored.length > 3
                      ? `${u.ignored.slice(0, 3).join("; ")}; ${u.ignored.length - 3} more`
                      : u.ignored.join("; ")}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {preview.remarks.map((r) => (
        <p key={r} className="quiet">
          {r}
        </p>
      ))}
      {preview.changes.length > 0 && (
        <div
          className="max-h-[26rem] overflow-auto border-y border-base-300"
          tabIndex={0}
          role="region"
          aria-label="Changes"
        >
          <table className="table">
            <thead>
              <tr>
                <th>Field</th>
                <th></th>
                <th>Before</th>
                <th>After</th>
                <th>Source</th>
              </tr>
            </thead>
            <tbody>
              {preview.changes.map((c) => (
                <tr key={c.path}>
                  <td className="value [overflow-wrap:anywhere]">{c.path}</td>
                  <td className={c.kind === "new" ? "quiet" : "font-semibold"}>{KINDS[c.kind]}</td>
                  <td className="value quiet [overflow-wrap:anywhere]">{factWords(c.path, c.before)}</td>
                  <td className="value [overflow-wrap:anywhere]">{factWords(c.path, c.after)}</td>
                  <td className="quiet whitespace-nowrap">{c.source.tool}</td>
                </tr>
              ))}
            </tbody>
          </table>
          {preview.changeCount > preview.changes.length && (
            <p className="px-2 py-1">
              {preview.changeCount - preview.changes.length} more changes are not shown; they are applied too.
            </p>
          )}
        </div>
      )}
    </>
  );
}
