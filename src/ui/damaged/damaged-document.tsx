"use client";

import { useState } from "react";
import type { Done } from "@/contract";
import type { Problem } from "@/core/result";
import { Problems } from "../frame/problems";
import { Day } from "../frame/person";

type Kind = "site" | "machine" | "image" | "build" | "run" | "drive" | "note";
export interface DamagedView {
  kind: Kind;
  id: string;
  name: string;
  problems: string[];
  text: string;
  setAside: { at: string; by: string } | null;
}

const WORDS: Record<Kind, string> = {
  site: "Site",
  machine: "Machine",
  image: "Image",
  build: "Build sheet",
  run: "Run started",
  drive: "Drive",
  note: "Compatibility note for",
};

/** One damaged document: what is wrong with it, its text to look at, save and mend, and a way to set it aside. */
export function DamagedDocument({
  damaged,
  repair,
  setAside,
}: {
  damaged: DamagedView;
  repair: (kind: Kind, id: string, text: string) => Promise<Done>;
  setAside: (kind: Kind, id: string) => Promise<Done>;
}) {
  const { kind, id, name } = damaged;
  const [text, setText] = useState(damaged.text);
  const [problems, setProblems] = useState<Problem[]>([]);
  const [busy, setBusy] = useState(false);
  const tell = async (answer: Promise<Done>) => {
    setBusy(true);
    const said = await answer.catch((): Done => ({
      ok: false,
      problems: [{ message: "The server does not respond; nothing was changed." }],
    }));
    setProblems(said.ok ? [] : said.problems);
    setBusy(false);
  };
  return (
    <article id={`${kind}-${id}`} className="mb-8 border-t pt-3 border-base-content">
      <h2 className="text-[1.07rem] font-semibold">
        {WORDS[kind]} {name} <span className="value quiet font-normal">{id}</span>
      </h2>
      <ul className="my-1 text-error">
        {damaged.problems.map((p) => (
          <li key={p}>{p}</li>
        ))}
      </ul>
      {damaged.setAside && (
        <p className="quiet">
          Quarantined by {damaged.setAside.by}, <Day at={damaged.setAside.at} />. It is preserved unchanged.
        </p>
      )}
      <label className="mt-2 block">
        <span className="label">Stored document; repair it here</span>
        <textarea
          className="textarea value w-full"
          rows={Math.min(18, text.split("\n").length + 1)}
          spellCheck={false}
          value={text}
          onChange={(e) => setText(e.target.value)}
        />
      </label>
      <Problems problems={problems} title="Not saved" />
      <div className="mt-2 flex flex-wrap gap-2">
        <button
          type="button"
          className="btn btn-primary"
          disabled={busy || text === damaged.text}
          onClick={() => void tell(repair(kind, id, text))}
        >
          Save repaired document
        </button>
        <a className="btn" href={`/api/v1/damaged/${kind}/${encodeURIComponent(id)}`} download>
          Download
        </a>
        {!damaged.setAside && (
          <button type="button" className="btn" disabled={busy} onClick={() => void tell(setAside(kind, id))}>
            Quarantine
          </button>
        )}
      </div>
    </article>
  );
}
