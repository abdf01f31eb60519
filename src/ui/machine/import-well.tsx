"use client";

import { useRef, useState } from "react";
import { useKept } from "../draft/use-kept";
import { Problems } from "../frame/problems";
import { ReadingsNow } from "./readings-now";

export interface DroppedText {
  name: string;
  text: string;
}

const LIMIT = 8_000_000;

/** The well: drop files, choose them, or paste. What is too large is refused here, with its size. */
export function ImportWell({ onTexts, label }: { onTexts: (texts: DroppedText[]) => void; label: string }) {
  const [over, setOver] = useState(false);
  const [problems, setProblems] = useState<{ message: string }[]>([]);
  const [pasted, setPasted] = useKept(`pasted ${label}`, "");
  const input = useRef<HTMLInputElement>(null);

  const read = async (files: File[]) => {
    const large = files.filter((f) => f.size > LIMIT);
    setProblems(
      large.map((f) => ({
        message: `${f.name} has ${Math.round(f.size / 1e6)} MB; the limit is ${LIMIT / 1e6} MB. A bundle is usually under 1 MB: check that this is the right file.`,
      })),
    );
    const texts = await Promise.all(
      files.filter((f) => f.size <= LIMIT).map(async (f) => ({ name: f.name, text: await f.text() })),
    );
    if (texts.length > 0) onTexts(texts);
  };

  return (
    <div>
      <div
        onDragOver={(e) => {
          e.preventDefault();
          setOver(true);
        }}
        onDragLeave={() => setOver(false)}
        onDrop={(e) => {
          e.preventDefault();
          setOver(false);
          void read([...e.dataTransfer.files]);
        }}
        className={`my-3 border border-dashed border-current p-3 ${over ? "bg-warning/18" : ""}`}
      >
        <div className="flex flex-wrap items-center gap-3">
          <span className="font-medium">{label}</span>
          <button type="button" className="btn" onClick={() => input.current?.click()}>
            Choose files
          </button>
          <input
            ref={input}
            type="file"
            multiple
            className="sr-only"
            aria-label={label}
            tabIndex={-1}
            onChange={(e) => void read([...(e.target.files ?? [])])}
          />
          <span className="quiet text-[0.86rem]">or paste the output of a tool:</span>
        </div>
        <textarea
          aria-label="Paste the output of a tool"
          className="textarea mt-2 text-[0.86rem]"
          rows={2}
          spellCheck={false}
          value={pasted}
          placeholder="lsblk -J -b -O, dmidecode, a bundle…"
          onChange={(e) => setPasted(e.target.value)}
        />
        {pasted.trim() !== "" && (
          <button
            type="button"
            className="btn mt-2"
            onClick={() => {
              if (pasted.length > LIMIT)
                return setProblems([
                  {
                    message: `The pasted text has ${Math.round(pasted.length / 1e6)} MB; the limit is ${LIMIT / 1e6} MB.`,
                  },
                ]);
              onTexts([{ name: "pasted text", text: pasted }]);
              setPasted("");
            }}
          >
            Import
          </button>
        )}
      </div>
      <ReadingsNow />
      <Problems problems={problems} title="Too large" />
    </div>
  );
}
