"use client";

import { useState } from "react";
import type { Answer } from "@/contract";
import { FileText } from "../network/file-text";
import { Page, Ruled } from "../frame/page";
import { siteSheets, SubSheets } from "../frame/sub-sheets";
import { TitleBlock } from "../frame/title-block";
import { TakeOver, type Preview } from "./take-over";

/** The files that follow from a site's plan, and the place where those that people have are read. */
export function SiteFilesSheet({
  id,
  name,
  room,
  files,
  machines,
  preview,
  take,
}: {
  id: string;
  name: string;
  room: string;
  files: readonly { path: string; text: string; reader: string }[];
  machines: readonly string[];
  preview: (text: string, machine: string) => Promise<Answer<Preview>>;
  take: (version: number, text: string, machine: string, rows: number[]) => Promise<Answer<number>>;
}) {
  const [at, setAt] = useState(0);
  const file = files[at] ?? files[0];
  return (
    <>
      <Page title={name} lead={room}>
        <SubSheets sheets={siteSheets(id)} open={`/sites/${id}/files`} />
        <Ruled title="Import existing configuration" note="nothing is changed until you confirm">
          <TakeOver {...{ machines, preview, take }} />
        </Ruled>
        <Ruled title="Generated configuration files" note="output is reproducible">
          <div className="grid gap-x-8 sheet:grid-cols-[18rem_minmax(0,1fr)]">
            <ul className="no-print mb-3">
              {files.map((f, i) => (
                <li key={f.path}>
                  <button
                    type="button"
                    aria-pressed={file === f}
                    className={`w-full border-l-2 py-0.5 pl-2 text-left [overflow-wrap:anywhere] ${file === f ? "font-semibold border-base-content" : "quiet border-transparent"}`}
                    onClick={() => setAt(i)}
                  >
                    <span className="value">{f.path}</span> <span className="quiet">{f.reader}</span>
                  </button>
                </li>
              ))}
            </ul>
            {file && <FileText path={file.path} text={file.text} note={`for ${file.reader}`} />}
          </div>
        </Ruled>
      </Page>
      <TitleBlock
        cells={[
          { label: "Site", value: name },
          { label: "Files", value: String(files.length), grow: true },
        ]}
      />
    </>
  );
}
