"use client";

import Link from "next/link";
import { useRouter } from "next/navigation";
import { useId, useState } from "react";
import type { Answer, ImportPreview } from "@/contract";
import type { Problem } from "@/core/result";
import type { Proposal } from "@/core/site";
import { useKept } from "../draft/use-kept";
import { CopyValue } from "../frame/copy-value";
import { Page, Ruled } from "../frame/page";
import { Problems } from "../frame/problems";
import { Table, type Column } from "../frame/table";
import { PreviewTables, ReadAgain, readThem } from "../machine/import-panel";
import { ImportWell, type DroppedText } from "../machine/import-well";

const NO_ANSWER: Answer<string> = {
  ok: false,
  problems: [{ message: "The server does not respond, so no build sheet was created. Your input is kept." }],
};

/** The one page of a Derrick that knows nothing yet: from what a machine's tools print to its sheet. */
export function FirstDay({
  begin,
  look,
}: {
  begin: (name: string, texts: DroppedText[]) => Promise<Answer<string>>;
  /** Leads to the demo's data, to be looked at. */
  look: () => Promise<void>;
}) {
  return (
    <Page
      title="Which machine do you want to install?"
      lead="Derrick imports hardware data, finds conflicts before the hardware is touched, guides you through the installation screen by screen, and writes the handover record."
    >
      <div className="grid gap-x-12 lg:grid-cols-[minmax(0,1.9fr)_minmax(0,1fr)]">
        <Ruled title="Import hardware data" note="collected, not typed">
          <FirstMachine begin={begin} />
        </Ruled>
        <Ruled title="Try the demo">
          <p className="mb-2">
            An invented water utility renews its servers; its build sheets are at every stage. The demo is
            read-only and leaves nothing behind.
          </p>
          <form action={look}>
            <button type="submit" className="btn">
              Open the demo
            </button>
          </form>
          <p className="quiet mt-4">
            To restore a backup of another Derrick into this empty one, run{" "}
            <span className="value">npm run restore</span>.
          </p>
        </Ruled>
      </div>
    </Page>
  );
}

function FirstMachine({ begin }: { begin: (name: string, texts: DroppedText[]) => Promise<Answer<string>> }) {
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
      <Problems problems={problems} title="Not created" />
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
            Machine name
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
          {isRead ? "Create build sheet" : "Create build sheet without hardware data"}
        </button>
      </form>
      {preview && (
        <details className="mt-4">
          <summary className="link cursor-pointer">
            All imported output: {preview.understood.length}{" "}
            {preview.understood.length === 1 ? "tool" : "tools"}
            {preview.rejected.length > 0 && `, ${preview.rejected.length} rejected`}
          </summary>
          <PreviewTables preview={preview} />
        </details>
      )}
      {!preview && (
        <p className="quiet mt-3">
          No other setup is needed. Add sites, networks and OS profiles when you have more than one machine;
          the{" "}
          <Link className="link" href="/images">
            images
          </Link>{" "}
          and OS families that Derrick includes are ready to use.
        </p>
      )}
    </>
  );
}

const HowToRead = () => (
  <ol className="list-decimal space-y-1 pl-5">
    <li>
      On any system that runs on the machine, also a live system from a USB stick, as root:{" "}
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
    <li>Drop the file here. Output of a single tool is accepted too.</li>
  </ol>
);

const COLUMNS: readonly Column<Proposal>[] = [
  { title: "Initial values of the build sheet", heads: true, width: "w-48", cell: (p) => p.what },
  { title: "", cell: (p) => (p.isRead ? <span className="value">{p.value}</span> : p.value) },
  {
    title: "Source",
    width: "w-32",
    className: "quiet",
    cell: (p) => (p.isRead ? "hardware data" : "not collected"),
  },
];

function Proposals({ proposed, isRead }: { proposed: readonly Proposal[]; isRead: boolean }) {
  return isRead ? (
    <Table label="Initial values" columns={COLUMNS} rows={proposed} keyOf={(p) => p.what} />
  ) : (
    <p role="alert">
      No known output was found. The reasons are below; you can still create the build sheet by name.
    </p>
  );
}
