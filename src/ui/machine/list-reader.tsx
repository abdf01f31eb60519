"use client";

import { useRouter } from "next/navigation";
import { useState } from "react";
import type { Answer, Done } from "@/contract";
import type { Problem } from "@/core/result";
import { Problems } from "../frame/problems";
import { ImportWell } from "./import-well";

interface Preview {
  rows: {
    line: number;
    name: string;
    site: string;
    does: "new machine" | "fills in" | "nothing new";
    fills: string[];
  }[];
  newSites: string[];
  warnings: Problem[];
  openLine: number | null;
}

/** Reads a list of machines: row by row what it would do, and then: take it over. */
export function ListReader({
  look,
  take,
}: {
  look: (text: string, from: string) => Promise<Answer<Preview>>;
  take: (text: string, from: string) => Promise<Done>;
}) {
  const router = useRouter();
  const [text, setText] = useState<{ name: string; text: string } | null>(null);
  const [preview, setPreview] = useState<Preview | null>(null);
  const [problems, setProblems] = useState<Problem[]>([]);
  const show = async (read: { name: string; text: string }): Promise<void> => {
    setText(read);
    const answer = await look(read.text, read.name);
    setPreview(answer.ok ? answer.value : null);
    setProblems(answer.ok ? [] : answer.problems);
  };
  const useful = preview?.rows.filter((r) => r.does !== "nothing new").length ?? 0;
  return (
    <div>
      <p className="max-w-[75ch]">
        A CSV table whose first line has column names. The columns <span className="value">name</span> and{" "}
        <span className="value">site</span> are required. Optional: maker, model, serial, asset tag, place,
        role, controller address, MACs, cores, memory and notes. The import fills empty fields and never
        overwrites collected or typed values; cores and memory are saved as expected values.
      </p>
      <ImportWell label="Drop the CSV file" onTexts={([first]) => (first ? show(first) : undefined)} />
      <Problems problems={problems} title="Not imported" />
      {preview && (
        <>
          <Problems problems={preview.warnings} title="Skipped lines" />
          {preview.openLine !== null && text && (
            <p className="my-2">
              Is line {preview.openLine} complete?{" "}
              <span className="value">
                {text.text
                  .trimEnd()
                  .split(/\r\n|\n|\r/)
                  .at(-1)}
              </span>
              ?{" "}
              <button
                type="button"
                className="link"
                onClick={() => void show({ ...text, text: `${text.text}\n` })}
              >
                Yes: import it too
              </button>
            </p>
          )}
          {preview.newSites.length > 0 && <p className="my-2">New sites: {preview.newSites.join(", ")}</p>}
          <div
            className="max-h-[28rem] overflow-auto"
            tabIndex={0}
            role="region"
            aria-label="Effect of the import"
          >
            <table className="table">
              <thead>
                <tr>
                  <th>Line</th>
                  <th>Machine</th>
                  <th>Site</th>
                  <th>Effect</th>
                  <th>Fills</th>
                </tr>
              </thead>
              <tbody>
                {preview.rows.map((r) => (
                  <tr key={r.line}>
                    <td className="value">{r.line}</td>
                    <td>{r.name}</td>
                    <td>{r.site}</td>
                    <td className={r.does === "nothing new" ? "quiet" : "font-semibold"}>{r.does}</td>
                    <td className="quiet">{r.fills.join(", ")}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          </div>
          <button
            type="button"
            className="btn btn-primary mt-3"
            disabled={useful === 0}
            onClick={async () => {
              const answer = text ? await take(text.text, text.name) : null;
              if (answer?.ok) router.push("/machines");
              else setProblems(answer?.problems ?? []);
            }}
          >
            {useful === 0 ? "Nothing new to import" : `Import ${useful} ${useful === 1 ? "row" : "rows"}`}
          </button>
        </>
      )}
    </div>
  );
}
