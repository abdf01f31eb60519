"use client";

import { useRouter } from "next/navigation";
import { useState } from "react";
import type { Done } from "@/contract";
import type { AnswersOffer, TakeGround } from "@/core/answers";
import type { Edit } from "@/core/document";
import { fieldWords, type Sheet } from "@/core/sheet";
import { Ruled } from "../frame/page";
import { Problems } from "../frame/problems";

interface Problem {
  message: string;
}

interface Props {
  build: string;
  version: number;
  sheet: Sheet;
  save: (id: string, version: number, edits: Edit[], verdict: null) => Promise<Done>;
}

/** Reads a file in this browser and compares it with the sheet. */
async function compared(build: string, sheet: Sheet, text: string): Promise<AnswersOffer | Problem[]> {
  const { offerOf, readAnswers } = await import("@/core/answers");
  const read = readAnswers(text);
  if (!read.ok) return read.problems;
  const answer = await fetch(`/api/v1/builds/${build}/ground`).catch(() => null);
  const ground = (answer?.ok ? await answer.json().catch(() => null) : null) as Omit<
    TakeGround,
    "sheet"
  > | null;
  if (!ground)
    return [
      { message: "The server does not send the current state of the sheet, so the file was not compared." },
    ];
  return offerOf(read.value, { machine: ground.machine, site: ground.site, sheet });
}

/** An answer file that somebody has, taken over into the sheet: what differs is shown, and taken only when it is ticked. */
export function TakeAnswers({ build, version, sheet, save }: Props) {
  const router = useRouter();
  const [text, setText] = useState("");
  const [offer, setOffer] = useState<AnswersOffer | null>(null);
  const [left, setLeft] = useState<readonly string[]>([]);
  const [problems, setProblems] = useState<readonly Problem[]>([]);
  const [said, setSaid] = useState("");
  const read = async (): Promise<void> => {
    const found = await compared(build, sheet, text);
    setSaid("");
    setLeft([]);
    setOffer(Array.isArray(found) ? null : found);
    setProblems(Array.isArray(found) ? found : []);
  };
  const chosen = offer?.offered.filter(({ path }) => !left.includes(path)) ?? [];
  const take = async (): Promise<void> => {
    const edits = chosen.map(({ path, before, after, line }): Edit => ({
      ...{ path, before, after },
      from: `${offer?.format} file, line ${line}`,
    }));
    const answer = await save(build, version, edits, null);
    setProblems(answer.ok ? [] : answer.problems);
    if (!answer.ok) return;
    setSaid(
      `${edits.length} ${edits.length === 1 ? "field was" : "fields were"} imported into zones F and E.`,
    );
    setOffer(null);
    setText("");
    router.refresh();
  };
  return (
    <Ruled
      title="Import from an answer file"
      note="Kickstart, preseed or cloud-config. The file is read in this browser; its secrets are not saved."
    >
      <textarea
        aria-label="Text of an answer file"
        className="textarea value h-28 w-full"
        value={text}
        spellCheck={false}
        onChange={(e) => setText(e.target.value)}
      />
      <p className="mt-1 flex flex-wrap items-center gap-4">
        <button type="button" className="btn" disabled={text.trim() === ""} onClick={() => void read()}>
          Compare
        </button>
        <input
          type="file"
          aria-label="File from this computer"
          className="file-input"
          onChange={async (e) => setText((await e.target.files?.[0]?.text()) ?? text)}
        />
        <span role="status">{said}</span>
      </p>
      <Problems title="Not done" problems={problems} />
      {offer && (
        <>
          <Offer offer={offer} left={left} onLeft={setLeft} />
          {chosen.length > 0 && (
            <button type="button" className="btn btn-primary mt-2" onClick={() => void take()}>
              Import {chosen.length} {chosen.length === 1 ? "field" : "fields"}
            </button>
          )}
          <LeftOut offer={offer} />
        </>
      )}
    </Ruled>
  );
}

/** What differs, field by field. */
function Offer({
  offer,
  left,
  onLeft,
}: {
  offer: AnswersOffer;
  left: readonly string[];
  onLeft: (left: readonly string[]) => void;
}) {
  if (offer.offered.length === 0)
    return (
      <p className="mt-2">
        This {offer.format} file has no values that differ from the sheet ({offer.same} fields are equal).
      </p>
    );
  return (
    <table className="table mt-2" aria-label="Differences">
      <thead>
        <tr>
          <th>Import</th>
          <th>Field</th>
          <th>Build sheet</th>
          <th>File</th>
          <th>Line</th>
        </tr>
      </thead>
      <tbody>
        {offer.offered.map(({ path, words, nowWords, line }) => {
          const { zone, name } = fieldWords(path);
          return (
            <tr key={path}>
              <td>
                <input
                  type="checkbox"
                  className="checkbox checkbox-xs"
                  aria-label={`Import ${name}`}
                  checked={!left.includes(path)}
                  onChange={(e) =>
                    onLeft(e.target.checked ? left.filter((p) => p !== path) : [...left, path])
                  }
                />
              </td>
              <td>
                {zone} {name}
              </td>
              <td className="quiet [overflow-wrap:anywhere]">{nowWords}</td>
              <td className="[overflow-wrap:anywhere]">{words}</td>
              <td className="value">{line}</td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}

const MOST_LINES = 200;

/** What is not taken over, by line. */
function LeftOut({ offer: { untaken } }: { offer: AnswersOffer }) {
  if (untaken.length === 0) return null;
  return (
    <section className="mt-3" aria-label="Not imported">
      <h3 className="font-semibold">Not imported: {untaken.length}</h3>
      <ul className="max-h-72 overflow-auto" tabIndex={0}>
        {untaken.slice(0, MOST_LINES).map(({ line, text, why }, i) => (
          <li key={i} className="grid gap-x-4 border-b py-0.5 border-base-300 sm:grid-cols-[4rem_1fr_1fr]">
            <span className="value quiet">{line}</span>
            <span className="value [overflow-wrap:anywhere]">{text}</span>
            <span>{why}</span>
          </li>
        ))}
      </ul>
      {untaken.length > MOST_LINES && <p className="quiet">and {untaken.length - MOST_LINES} more lines</p>}
    </section>
  );
}
