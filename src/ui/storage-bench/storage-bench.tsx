"use client";

import { term } from "@/core/text";
import { useMemo, useState } from "react";
import {
  consequence,
  fromQuery,
  remarksOn,
  searchLayouts,
  SMALL_SHARE,
  toQuery,
  type BenchAnswer,
  type BenchCandidate,
  type BenchQuestion,
} from "@/core/storage";
import { Page, Ruled } from "../frame/page";
import { Problems } from "../frame/problems";
import { Bays } from "./bays";
import { BenchForm } from "./bench-form";
import { CandidateTable } from "./candidate-table";
import { Ladder, Survived, Working } from "./figures";
import { TrialCheck } from "./trial";
import { LossChart } from "./loss-chart";

const PICK = "pick";

/** A quick question about drives, answered with every layout of them; the question stands in the address. */
export function StorageBench({ query }: { query: string }) {
  const [question, setQuestion] = useState(() => fromQuery(new URLSearchParams(query)));
  const [pick, setPick] = useState(() => new URLSearchParams(query).get(PICK) ?? "");
  const found = useMemo(() => searchLayouts(question), [question]);
  const keep = (next: BenchQuestion, name: string): void => {
    setQuestion(next);
    setPick(name);
    const address = new URLSearchParams(toQuery(next));
    if (name) address.set(PICK, name);
    window.history.replaceState(null, "", address.size > 0 ? `?${address}` : window.location.pathname);
  };
  return (
    <Page
      title="Storage planner"
      lead="Compare layouts by usable capacity, fault tolerance and probability of data loss."
    >
      <BenchForm question={question} ask={(next) => keep(next, "")} />
      {found.ok ? (
        <Answer
          answer={found.value}
          question={question}
          pick={pick}
          choose={(name) => keep(question, name)}
        />
      ) : (
        <Problems problems={found.problems} title="No layout possible" />
      )}
    </Page>
  );
}

interface AnswerProps {
  answer: BenchAnswer;
  question: BenchQuestion;
  pick: string;
  choose: (name: string) => void;
}

function Answer({ answer, question, pick, choose }: AnswerProps) {
  const { candidates, sizes } = answer;
  const standing = candidates.filter((c) => c.folded === null);
  const chosen = candidates.find((c) => c.name === pick) ?? standing[0];
  return (
    <>
      {chosen ? (
        <Consequence candidate={chosen} />
      ) : (
        <p role="status" className="my-4 text-[1.3rem] font-semibold">
          No layout of these drives meets the requirements.
        </p>
      )}
      <div className="grid gap-x-8 lg:grid-cols-[minmax(0,1fr)_21rem]">
        <CandidateTable {...{ candidates, chosen, choose }} />
        <LossChart candidates={standing} chosen={chosen ?? null} />
      </div>
      {chosen && (
        <>
          <Remarks candidate={chosen} others={candidates} question={question} />
          <Ruled title="Drives" note="select a drive to simulate its failure; select it again to repair it">
            <Bays key={chosen.name} layout={chosen.layout} sizes={sizes} />
          </Ruled>
          <div className="grid gap-x-8 lg:grid-cols-2">
            <Ruled title="Capacity breakdown">
              <Ladder candidate={chosen} />
            </Ruled>
            <Ruled title="Survivable failures" note="all combinations of failed drives, counted">
              <Survived candidate={chosen} />
              <Working candidate={chosen} question={question} />
              <TrialCheck
                key={`${chosen.name} ${toQuery(question)}`}
                {...{ candidate: chosen, question, sizes }}
              />
            </Ruled>
          </div>
        </>
      )}
    </>
  );
}

/** What to know of the chosen layout, the graver first; nothing where there is nothing. */
function Remarks({
  candidate,
  others,
  question,
}: {
  candidate: BenchCandidate;
  others: readonly BenchCandidate[];
  question: BenchQuestion;
}) {
  const remarks = remarksOn(candidate, others, question);
  if (remarks.length === 0) return null;
  return (
    <Ruled title={`Notes on ${candidate.name}`}>
      <ul className="space-y-1" data-remarks>
        {remarks.map((r) => (
          <li
            key={r.code}
            className={`border-l-4 pl-3 ${r.severity === "caution" ? "border-warning" : "border-info"}`}
          >
            <span className="label mr-2">{term(r.severity)}</span>
            {r.text}
          </li>
        ))}
      </ul>
    </Ruled>
  );
}

/** What follows from the choice, to be read from afar; where most of the drives go to copies, that before all. */
function Consequence({ candidate }: { candidate: BenchCandidate }) {
  const share = candidate.usableBytes / candidate.rawBytes;
  return (
    <div className="my-4">
      <p role="status" className="max-w-[64ch] text-[1.35rem] leading-snug font-semibold" data-consequence>
        {consequence(candidate)}
      </p>
      {share < SMALL_SHARE && (
        <p role="note" className="mt-1 border-l-4 pl-3 border-warning">
          {Math.round((1 - share) * 100)} % of the raw capacity is used for copies, parity and spares. This
          suits data that must stay available, and is unusual for other purposes.
        </p>
      )}
    </div>
  );
}
