"use client";

import { daysInWords } from "@/core/units";
import { term } from "@/core/text";
import { memo, useState, type ReactNode } from "react";
import { quietWords, type FindingGroup, type PlacedFinding } from "@/core/finding";
import { SEVERITY_RULE, SEVERITY_TEXT, Signal } from "../frame/signal";
import { Day } from "../frame/person";

/** What a margin offers to do about a finding. */
export interface NoteActs {
  /** An edit that does away with it, in words, and what it changes; null where it takes a person. */
  cureOf?: (finding: PlacedFinding) => { words: string; detail: string } | null;
  onCure?: (finding: PlacedFinding) => void;
  onWaive?: (finding: PlacedFinding) => void;
  /** Something of its own below a finding, such as the way to its drive. */
  more?: (finding: PlacedFinding) => ReactNode;
}

interface EntryProps {
  group: FindingGroup;
  children: ReactNode;
}

/** The frame of what stands in a margin as one; keys step from one to the next. */
const Entry = ({ group, children }: EntryProps) => {
  const [first] = group.findings;
  const isStop = group.severity === "stop";
  return (
    <article
      id={group.kind === "one" ? first!.label : undefined}
      tabIndex={-1}
      data-entry={group.key}
      data-kind={group.kind}
      data-at={first!.at}
      data-zone={group.zone}
      data-severity={group.severity}
      data-label={first!.label}
      className={`mb-3 bg-base-100 pr-2 pl-2.5 target:bg-base-200 sheet:mb-0 ${isStop ? "border-l-4" : "border-l-2"} ${SEVERITY_RULE[group.severity]}`}
    >
      {children}
    </article>
  );
};

/** One finding, several that are alike, or a line of quiet ones. `isBrief` leaves a caution its title only. */
export const Note = memo(function Note({
  group,
  acts,
  isBrief,
}: {
  group: FindingGroup;
  acts: NoteActs;
  isBrief: boolean;
}) {
  if (group.kind === "quiet") return <Quiet group={group} acts={acts} />;
  return group.kind === "equal" ? (
    <Alike group={group} acts={acts} isBrief={isBrief} />
  ) : (
    <Entry group={group}>
      <One finding={group.findings[0]!} acts={acts} isBrief={isBrief} />
    </Entry>
  );
});

const Head = ({ finding, children }: { finding: PlacedFinding; children: ReactNode }) => (
  <h3 className={`leading-5 ${SEVERITY_TEXT[finding.severity]}`}>
    <span className="mr-1.5 inline-flex h-5 items-center align-bottom">
      <Signal severity={finding.severity} />
    </span>
    <span className="mr-1.5 font-semibold whitespace-nowrap">
      {finding.label && <span className="value mr-1.5">{finding.label}</span>}
      {term(finding.severity)}
    </span>
    {children}
  </h3>
);

/** A title that opens what is folded below it. */
const Title = ({
  text,
  hint,
  open,
  onOpen,
}: {
  text: string;
  hint: string;
  open: boolean;
  onOpen: () => void;
}) => (
  <button
    type="button"
    data-opens
    className="text-left text-base-content underline decoration-dotted underline-offset-4"
    aria-expanded={open}
    title={hint}
    onClick={onOpen}
  >
    {text}
  </button>
);

function One({ finding, acts, isBrief }: { finding: PlacedFinding; acts: NoteActs; isBrief: boolean }) {
  const [open, setOpen] = useState(false);
  const { waiver, severity, ended, title } = finding;
  // A note keeps to one line until somebody asks, and so does a caution of a zone that is folded.
  const brief = (severity === "note" || isBrief) && severity !== "stop" && !open && !waiver && !ended;
  const struck = waiver ? "line-through decoration-1 opacity-80" : "";
  return (
    <>
      <Head finding={finding}>
        {brief ? (
          <Title text={title} hint={finding.says} open={false} onOpen={() => setOpen(true)} />
        ) : (
          <span className={`text-base-content ${severity === "stop" ? "font-semibold" : ""}`}>{title}</span>
        )}
      </Head>
      {!brief && <p className={`leading-snug [overflow-wrap:anywhere] ${struck}`}>{finding.says}</p>}
      <Waived finding={finding} />
      {!brief && <Remedy finding={finding} acts={acts} open={open} toggle={() => setOpen(!open)} />}
    </>
  );
}

/** What was set aside, by whom and why; and what was once, and is not any more. */
const Waived = ({ finding: { waiver, ended } }: { finding: PlacedFinding }) => (
  <>
    {waiver && (
      <p className="leading-snug">
        Waived: {waiver.reason}{" "}
        <span className="quiet">
          – {waiver.by}, <Day at={waiver.at} />
        </span>
      </p>
    )}
    {ended && (
      <p className="leading-snug">
        <strong>Waiver ended</strong> because its scope has changed: {ended.reason}{" "}
        <span className="quiet">
          – {ended.by}, <Day at={ended.at} />
        </span>
      </p>
    )}
  </>
);

interface RemedyProps {
  finding: PlacedFinding;
  acts: NoteActs;
  open: boolean;
  toggle: () => void;
}

/** The cure where there is one, and what to do with the evidence once somebody asks. */
function Remedy({ finding, acts, open, toggle }: RemedyProps) {
  const cure = acts.cureOf?.(finding) ?? null;
  return (
    <>
      <p className="flex flex-wrap items-baseline gap-x-3 gap-y-1">
        {cure && (
          <button
            type="button"
            data-cure
            className="btn text-[0.86rem]"
            title={cure.detail}
            onClick={() => acts.onCure?.(finding)}
          >
            {cure.words}
          </button>
        )}
        <button
          type="button"
          data-opens
          className="link quiet text-[0.86rem]"
          aria-expanded={open}
          onClick={toggle}
        >
          {open ? "fold" : "suggested fix and reason"}
        </button>
        {acts.more?.(finding)}
      </p>
      {open && (
        <div className="mt-1 space-y-1 pb-1 leading-snug">
          <p>
            <span className="label">Fix </span>
            {finding.remedy}
          </p>
          {cure && <p className="quiet [overflow-wrap:anywhere]">{cure.detail}</p>}
          <Evidence finding={finding} />
          {acts.onWaive && <SetAside finding={finding} onWaive={acts.onWaive} />}
        </div>
      )}
    </>
  );
}

const Evidence = ({ finding }: { finding: PlacedFinding }) =>
  finding.evidence.length > 0 && (
    <dl className="grid grid-cols-[auto_1fr] gap-x-2 text-[0.9rem]">
      {finding.evidence.map((e) => (
        <div key={e.what + e.value} className="contents">
          <dt className="quiet">{e.what}</dt>
          <dd>
            <span className="value [overflow-wrap:anywhere]">{daysInWords(e.value)}</span>{" "}
            <span className="quiet">({daysInWords(e.source)})</span>
          </dd>
        </div>
      ))}
    </dl>
  );

const SetAside = ({ finding, onWaive }: { finding: PlacedFinding; onWaive: (f: PlacedFinding) => void }) =>
  finding.waiver ? null : finding.waivable ? (
    <button type="button" className="btn text-[0.86rem]" onClick={() => onWaive(finding)}>
      Waive with a reason
    </button>
  ) : (
    <p className="quiet">This blocker protects data and cannot be waived.</p>
  );

/** Findings that say the same of different things: their title once, below it each with its own remedy. */
function Alike({ group, acts, isBrief }: { group: FindingGroup; acts: NoteActs; isBrief: boolean }) {
  const [open, setOpen] = useState(false);
  const { findings } = group;
  const [first] = findings;
  const told = `${first!.title} (${findings.length} times)`;
  return (
    <Entry group={group}>
      <Head finding={{ ...first!, label: first!.label && `${first!.label}–${findings.at(-1)!.label}` }}>
        <Title
          text={told}
          hint={findings.map((f) => f.says).join("\n")}
          open={open}
          onOpen={() => setOpen(!open)}
        />
      </Head>
      {open ? (
        <ul className="space-y-1.5 pt-1">
          {findings.map((f) => (
            <li key={f.key} id={f.label} tabIndex={-1} className="target:bg-base-200">
              <Line finding={f} acts={acts} />
            </li>
          ))}
        </ul>
      ) : (
        (!isBrief || group.severity === "stop") && (
          <p className="leading-snug [overflow-wrap:anywhere]">
            {first!.says} <span className="quiet">and {findings.length - 1} more</span>
          </p>
        )
      )}
    </Entry>
  );
}

/** A finding below the title that it shares with others. */
function Line({ finding, acts }: { finding: PlacedFinding; acts: NoteActs }) {
  const [open, setOpen] = useState(false);
  return (
    <>
      <p className="leading-snug [overflow-wrap:anywhere]">
        {finding.label && <span className="value font-semibold">{finding.label} </span>}
        {finding.says}
      </p>
      <Waived finding={finding} />
      <Remedy finding={finding} acts={acts} open={open} toggle={() => setOpen(!open)} />
    </>
  );
}

/** The notes of a zone, and what was set aside in it, in one line that opens to all of them. */
function Quiet({ group, acts }: { group: FindingGroup; acts: NoteActs }) {
  const [open, setOpen] = useState(false);
  const hint = group.findings.map((f) => f.title).join("; ");
  return (
    <Entry group={group}>
      <h3 className={`flex items-center gap-1.5 leading-5 ${SEVERITY_TEXT.note}`}>
        <Signal severity="note" />
        {group.findings[0]!.label && <span className="value font-semibold">{group.zone}</span>}
        <Title text={quietWords(group)} hint={hint} open={open} onOpen={() => setOpen(!open)} />
      </h3>
      {open && (
        <ul className="space-y-1 pt-1">
          {group.findings.map((f) => (
            <li key={f.key} id={f.label} tabIndex={-1} className="target:bg-base-200">
              <One finding={f} acts={acts} isBrief />
            </li>
          ))}
        </ul>
      )}
    </Entry>
  );
}
