"use client";

import Link from "next/link";
import { useRouter } from "next/navigation";
import { useId, useState } from "react";
import type { Problem } from "@/core/result";
import type { Proposal } from "@/core/site";
import { useKept } from "../draft/use-kept";
import { CopyValue } from "../frame/copy-value";
import { Page, Ruled } from "../frame/page";
import { Problems } from "../frame/problems";
import { Table, type Column } from "../frame/table";
import { PreviewTables, ReadAgain, readThem, type ImportPreview } from "../machine/import-panel";
import { ImportWell, type DroppedText } from "../machine/import-well";

type Begun = { ok: true; value: string } | { ok: false; problems: Problem[] };

const NO_ANSWER: Begun = {
  ok: false,
  problems: [{ message: "The server does not answer, so nothing was begun. What you gave is still here." }],
};

/** The one page of a Derrick that knows nothing yet: from what a machine's tools print to its sheet. */
export function FirstDay({
  begin,
  look,
}: {
  begin: (name: string, texts: DroppedText[]) => Promise<Begun>;
  /** Leads to the demo's data, to be looked at. */
  look: () => Promise<void>;
}) {
  return (
    <Page
      title="Which machine is to be built?"
      lead="Derrick reads what a machine is, finds what would go wrong before it is touched, leads through the installation screen by screen, and writes the record."
    >
      <div className="grid gap-x-12 lg:grid-cols-[minmax(0,1.9fr)_minmax(0,1fr)]">
        <Ruled title="Read it" note="facts are read, not typed">
          <FirstMachine begin={begin} />
        </Ruled>
        <Ruled title="Or look first">
          <p className="mb-2">
            A made-up water utility renews its servers: every sheet is in the middle of something. To look at
            only; it leaves no trace.
          </p>
          <form action={look}>
            <button type="submit" className="btn">
              Look at the demo&rsquo;s data
            </button>
          </form>
          <p className="quiet mt-4">
            A backup of another Derrick goes into an empty one with{" "}
            <span className="value">npm run restore</span>.
          </p>
        </Ruled>
      </div>
    </Page>
  );
}

function FirstMachine({ begin }: { begin: (name: string, texts: DroppedText[]) => Promise<Begun> }) {
  const router = useRouter();
  const [texts, setTexts] = useKept<DroppedText[]>("texts", []);
  const [preview, setPreview] = useState<ImportPreview | null>(null);
  const [problems, setProblems] = useState<Problem[]>([]);
  const [name, setName] = useKept("name", "");
  const [busy, setBusy] = useState(false);
  const nameId = useId();
  const isRead = preview !== null && preview.understood.length > 0;

  const read = async (dropped: DroppedText[]) => {
    const all = [...texts, ...dropped];
    await look(all);
  };
  const look = async (all: DroppedText[]) => {
    const answer = await readThem(null, all);
    setProblems(answer.ok ? [] : answer.problems);
    if (!answer.ok) return;
    setTexts(all);
    setPreview(answer.value);
    if (name === "") setName(answer.value.suggestedName);
  };
  const go = async () => {
    setBusy(true);
    const answer = await begin(name, isRead ? texts : []).catch(() => NO_ANSWER);
    if (answer.ok) {
      setTexts([]);
      setName("");
      return router.push(`/builds/${answer.value}`);
    }
    setBusy(false);
    setProblems(answer.problems);
  };
  return (
    <>
      <HowToRead />
      {texts.length > 0 && !preview && !busy && <ReadAgain count={texts.length} onRead={() => look(texts)} />}
      <ImportWell onTexts={read} label="Drop bundle.txt here" />
      <Problems problems={problems} title="Not begun" />
      {preview && <Proposals proposed={preview.proposed} isRead={isRead} />}
      <form
        className="mt-3 flex flex-wrap items-end gap-x-6 gap-y-3"
        onSubmit={(e) => {
          e.preventDefault();
          void go();
        }}
      >
        <div className="w-72 max-w-full">
          <label className="label" htmlFor={nameId}>
            Name of the machine
          </label>
          <input
            id={nameId}
            className="input"
            value={name}
            maxLength={80}
            autoComplete="off"
            onChange={(e) => setName(e.target.value)}
          />
        </div>
        <button
          type="submit"
          className={`btn ${isRead ? "btn-primary" : ""}`}
          disabled={busy || name.trim() === ""}
        >
          {isRead ? "Begin its build sheet" : "Begin its sheet without a reading"}
        </button>
      </form>
      {preview && (
        <details className="mt-4">
          <summary className="link cursor-pointer">
            all that was read: {preview.understood.length}{" "}
            {preview.understood.length === 1 ? "tool" : "tools"}
            {preview.rejected.length > 0 && `, ${preview.rejected.length} not taken`}
          </summary>
          <PreviewTables preview={preview} />
        </details>
      )}
      {!preview && (
        <p className="quiet mt-3">
          Nothing else has to be set up. A site, networks and OS profiles can be written when there is more
          than one machine; the{" "}
          <Link className="link" href="/images">
            images
          </Link>{" "}
          and families that Derrick knows are there.
        </p>
      )}
    </>
  );
}

const HowToRead = () => (
  <ol className="list-decimal space-y-1 pl-5">
    <li>
      On any system that runs on the machine, a live one from a stick too, as root:{" "}
      <CopyValue value="sh collect.sh > bundle.txt" />, with{" "}
      <a className="link" href="/collect.sh" download="collect.sh">
        collect.sh
      </a>{" "}
      (on a BSD system{" "}
      <a className="link" href="/collect-bsd.sh" download="collect-bsd.sh">
        collect-bsd.sh
      </a>
      ). It only reads.
    </li>
    <li>Bring the file here. What a single tool prints is read as well.</li>
  </ol>
);

const COLUMNS: readonly Column<Proposal>[] = [
  { title: "The sheet begins with", heads: true, width: "w-48", cell: (p) => p.what },
  { title: "", cell: (p) => (p.isRead ? <span className="value">{p.value}</span> : p.value) },
  {
    title: "From",
    width: "w-32",
    className: "quiet",
    cell: (p) => (p.isRead ? "the reading" : "not read"),
  },
];

function Proposals({ proposed, isRead }: { proposed: readonly Proposal[]; isRead: boolean }) {
  return isRead ? (
    <Table label="What the sheet begins with" columns={COLUMNS} rows={proposed} keyOf={(p) => p.what} />
  ) : (
    <p role="alert">
      Nothing in this could be read. What was the matter stands below; the sheet can begin by name.
    </p>
  );
}
