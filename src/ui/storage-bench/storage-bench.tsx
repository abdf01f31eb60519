"use client";

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
      title="Bench"
      lead="Drives in, layouts out: what can be used, what may fail, and what that is worth."
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
        <Problems problems={found.problems} title="This cannot be laid out" />
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
        <Consequence candidate={chosen} sizes={sizes} />
      ) : (
        <p role="status" className="my-4 text-[1.3rem] font-semibold">
          No layout of these drives does what is wished.
        </p>
      )}
      <div className="grid gap-x-8 lg:grid-cols-[minmax(0,1fr)_21rem]">
        <CandidateTable {...{ candidates, chosen, choose }} />
        <LossChart candidates={standing} chosen={chosen ?? null} />
      </div>
      {chosen && (
        <>
          <Remarks candidate={chosen} others={candidates} question={question} />
          <Ruled title="Drives" note="press one to see what happens when it fails; press it again to mend it">
            <Bays key={chosen.name} layout={chosen.layout} sizes={sizes} />
          </Ruled>
          <div className="grid gap-x-8 lg:grid-cols-2">
            <Ruled title="From raw to usable">
              <Ladder candidate={chosen} />
            </Ruled>
            <Ruled title="Failures that are survived" note="of all sets of so many failed drives, counted">
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
    <Ruled title={`What to know of ${candidate.name}`}>
      <ul className="space-y-1" data-remarks>
        {remarks.map((r) => (
          <li
            key={r.code}
            className={`border-l-4 pl-3 ${r.severity === "caution" ? "border-warning" : "border-info"}`}
          >
            <span className="label mr-2">{r.severity}</span>
            {r.text}
          </li>
        ))}
      </ul>
    </Ruled>
  );
}

/** What follows from the choice, to be read from afar; where most of the drives go to copies, that before all. */
function Consequence({ candidate, sizes }: { candidate: BenchCandidate; sizes: readonly number[] }) {
  const share = candidate.usableBytes / candidate.rawBytes;
  return (
    <div className="my-4">
      <p role="status" className="max-w-[64ch] text-[1.35rem] leading-snug font-semibold" data-consequence>
        {consequence(candidate, sizes)}
      </p>
      {share < SMALL_SHARE && (
        <p role="note" className="mt-1 border-l-4 pl-3 border-warning">
          Of what these drives hold, {Math.round((1 - share) * 100)} % goes to copies, parity and spares. That
          is right for what must never stand still, and a surprise for everything else.
        </p>
      )}
    </div>
  );
}
