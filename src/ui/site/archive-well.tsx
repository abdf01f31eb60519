"use client";

import { useRouter } from "next/navigation";
import { useRef, useState } from "react";
import type { Answer } from "@/contract";
import { Problems } from "../frame/problems";

type Loaded = Answer<{ machines: number; builds: number; pictures: number }>;

const AWAY: Loaded = {
  ok: false,
  problems: [{ message: "The server did not receive the whole file; nothing was changed. Try again." }],
};

/** Everything out as one file, and into an empty installation. */
export function ArchiveWell({ empty }: { empty: boolean }) {
  const router = useRouter();
  const input = useRef<HTMLInputElement>(null);
  const [busy, setBusy] = useState("");
  const [answer, setAnswer] = useState<Loaded | null>(null);
  const read = async (file: File) => {
    setBusy(file.name);
    setAnswer(null);
    const type = file.name.endsWith(".json") ? "application/json" : "application/gzip";
    const response = await fetch("/api/v1/export", {
      method: "POST",
      headers: { "Content-Type": type },
      body: file,
    }).catch(() => null);
    const said = ((await response?.json().catch(() => null)) as Loaded | null | undefined) ?? AWAY;
    setBusy("");
    setAnswer(said);
    if (said.ok) router.refresh();
  };
  return (
    <>
      <p className="mb-2 max-w-[70ch]">
        The archive contains all sites, machines, images, build sheets, runs, profiles, pictures and imported
        texts in open formats: a compressed tar of JSON documents and files with checksums. It does not
        contain image files, collector codes and passwords.
      </p>
      <div className="flex flex-wrap items-center gap-3">
        <a className="btn" href="/api/v1/export" download>
          Download archive
        </a>
        {empty ? (
          <button type="button" className="btn" disabled={busy !== ""} onClick={() => input.current?.click()}>
            {busy ? `Importing ${busy}…` : "Import an archive"}
          </button>
        ) : (
          <span className="quiet">
            An archive can be imported into an empty installation only; this one has data.
          </span>
        )}
        <input
          ref={input}
          type="file"
          accept=".gz,.tgz,.json"
          className="sr-only"
          aria-label="Archive"
          tabIndex={-1}
          onChange={(e) => {
            const file = e.target.files?.[0];
            e.target.value = "";
            if (file) void read(file);
          }}
        />
      </div>
      {answer?.ok && (
        <p role="status" className="mt-2">
          Imported: {answer.value.machines} machines, {answer.value.builds} build sheets,{" "}
          {answer.value.pictures} pictures.
        </p>
      )}
      <Problems problems={answer && !answer.ok ? answer.problems : []} title="Nothing was changed" />
    </>
  );
}
