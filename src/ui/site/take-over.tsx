"use client";

import type { Answer } from "@/contract";
import { formatNumber } from "@/core/units";
import { useRouter } from "next/navigation";
import { useState } from "react";
import { formatProblem, type Problem } from "@/core/result";
import type { Offer } from "@/core/site";
import { useKept } from "../draft/use-kept";
import { DropWell } from "../image/drop-well";
import { Problems } from "../frame/problems";

/** What a text says, row by row, compared with the plan. */
export interface Preview {
  format: string;
  offers: Offer[];
  problems: Problem[];
  openLine: number | null;
  version: number;
}

const STATES: Record<Offer["state"], string> = {
  new: "new",
  differs: "differs",
  known: "as planned",
  "not here": "not of this site",
};

/** Reads a file or an output that people have; what it says is shown beside the plan, and what is ticked is taken over. */
export function TakeOver({
  machines,
  preview,
  take,
}: {
  machines: readonly string[];
  preview: (text: string, machine: string) => Promise<Answer<Preview>>;
  take: (version: number, text: string, machine: string, rows: number[]) => Promise<Answer<number>>;
}) {
  const router = useRouter();
  const [text, setText] = useKept("network text", "");
  const [machine, setMachine] = useState("");
  const [shown, setShown] = useState<Preview | null>(null);
  const [ticked, setTicked] = useState<ReadonlySet<number>>(new Set());
  const [problems, setProblems] = useState<Problem[]>([]);
  const [done, setDone] = useState("");
  const look = async (next: string, on: string) => {
    setDone("");
    const answer = await preview(next, on);
    setProblems(answer.ok ? [] : answer.problems);
    setShown(answer.ok ? answer.value : null);
    const offers = answer.ok ? answer.value.offers : [];
    // A line that may be cut off is taken by nobody but a person who has looked at it.
    const openLine = answer.ok ? answer.value.openLine : null;
    const isTaken = ({ state, row }: Offer): boolean =>
      state === "new" && row.kind !== "seen" && row.line !== openLine;
    setTicked(new Set(offers.flatMap((o, i) => (isTaken(o) ? [i] : []))));
  };
  const takeThem = async () => {
    if (!shown) return;
    const answer = await take(shown.version, text, machine, [...ticked]);
    if (!answer.ok) return setProblems(answer.problems);
    setShown(null);
    setText("");
    setDone(`${answer.value} imported. You can undo this on the page Networks and defaults.`);
    router.refresh();
  };
  return (
    <div className="max-w-5xl">
      <DropWell
        title="File or output"
        name="Network file"
        hint="dnsmasq, Kea, dhcpd, hosts, zone, ip neigh, arp, lldpcli -f json, a spreadsheet of addresses"
        onFile={(file) =>
          void file.text().then((t) => {
            setText(t);
            return look(t, machine);
          })
        }
      />
      <div className="mt-2 grid items-end gap-4 sm:grid-cols-[1fr_14rem_auto]">
        <label>
          <span className="label">Or paste its text</span>
          <textarea
            className="textarea"
            rows={3}
            value={text}
            spellCheck={false}
            onChange={(e) => setText(e.target.value)}
          />
        </label>
        <label>
          <span className="label">Switch (for cables)</span>
          <select
            aria-label="Switch"
            className="select"
            value={machine}
            onChange={(e) => setMachine(e.target.value)}
          >
            <option value="">none</option>
            {machines.map((m) => (
              <option key={m}>{m}</option>
            ))}
          </select>
        </label>
        <button
          type="button"
          className="btn"
          disabled={text.trim() === ""}
          onClick={() => look(text, machine)}
        >
          Compare with the plan
        </button>
      </div>
      <Problems problems={problems} title="Nothing was changed" />
      {done && (
        <p role="status" className="mt-2">
          {done}
        </p>
      )}
      {shown && <Offers {...{ shown, ticked, setTicked }} take={takeThem} />}
    </div>
  );
}

function Offers({
  shown,
  ticked,
  setTicked,
  take,
}: {
  shown: Preview;
  ticked: ReadonlySet<number>;
  setTicked: (ticked: ReadonlySet<number>) => void;
  take: () => Promise<void>;
}) {
  const [all, setAll] = useState(false);
  const rows = shown.offers.map((offer, i) => ({ offer, i }));
  const asked = rows.filter(({ offer }) => offer.state === "new" || offer.state === "differs");
  const listed = (all ? rows : asked).slice(0, MOST);
  const open = rows.filter(({ offer }) => offer.row.line === shown.openLine);
  const tick = (i: number, on: boolean): void => {
    const next = new Set(ticked);
    if (on) next.add(i);
    else next.delete(i);
    setTicked(next);
  };
  return (
    <section aria-label="Comparison" className="mt-3">
      <p className="mb-1">
        <span className="font-medium">{shown.format}</span>
        {": "}
        {rows.length} rows, {asked.length} of them new or different
        {shown.problems.length > 0 &&
          `, ${shown.problems.length} ${shown.problems.length === 1 ? "line" : "lines"} not recognised`}
        .{" "}
        <button type="button" className="link quiet" onClick={() => setAll(!all)}>
          {all ? "Show changes only" : "Show all"}
        </button>
      </p>
      {shown.problems.length > 0 && (
        <ul className="mb-2 border-l-2 pl-3 border-warning">
          {shown.problems.slice(0, 20).map((p) => (
            <li key={`${p.line} ${p.message}`}>
              {formatProblem(p)} {p.excerpt && <span className="value quiet">{p.excerpt}</span>}
            </li>
          ))}
        </ul>
      )}
      <ul className="max-h-96 overflow-auto">
        {listed
          .filter(({ offer }) => offer.row.line !== shown.openLine)
          .map(({ offer, i }) => (
            <OfferRow key={i} offer={offer} isTicked={ticked.has(i)} tick={(on) => tick(i, on)} />
          ))}
      </ul>
      {open.length > 0 && (
        <div className="mt-2 border-l-2 pl-3 border-warning">
          <p>
            Line {shown.openLine} has no line end: the text may be cut off, and its last value incomplete.
            Compare it with the source before you tick it.
          </p>
          <ul aria-label="Last line, without a line end">
            {open.map(({ offer, i }) => (
              <OfferRow key={i} offer={offer} isTicked={ticked.has(i)} tick={(on) => tick(i, on)} />
            ))}
          </ul>
        </div>
      )}
      {(all ? rows : asked).length > MOST && (
        <p className="quiet">
          and {formatNumber((all ? rows : asked).length - MOST)} more, ticked in the same way
        </p>
      )}
      <button type="button" className="btn mt-2" disabled={ticked.size === 0} onClick={() => void take()}>
        Import {ticked.size}
      </button>
    </section>
  );
}

function OfferRow({
  offer,
  isTicked,
  tick,
}: {
  offer: Offer;
  isTicked: boolean;
  tick: (on: boolean) => void;
}) {
  const isOpen = offer.state === "new" || offer.state === "differs";
  return (
    <li>
      <label className="flex gap-3 py-0.5">
        <input
          type="checkbox"
          className="checkbox checkbox-xs mt-1"
          disabled={!isOpen}
          checked={isTicked}
          onChange={(e) => tick(e.target.checked)}
        />
        <span className="quiet w-28 shrink-0">{STATES[offer.state]}</span>
        <span>
          {offer.says} <span className="quiet">line {offer.row.line}</span>
        </span>
      </label>
    </li>
  );
}

const MOST = 300;
