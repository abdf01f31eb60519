import type { Done } from "@/contract";
import { term } from "@/core/text";
import { VERDICTS, type CompatNote, type Trial } from "@/core/compat";
import { OtherVersion } from "../draft/other-version";
import { useKept } from "../draft/use-kept";
import { ChoiceField, SelectField, TextField } from "../fields/fields";
import { SlipForm } from "../frame/slip-form";

export type Judgement = Pick<CompatNote, "verdict" | "condition" | "evidence">;

/** Verdict, condition and evidence: of a new note and of one that is judged again. */
export function JudgementFields({
  value,
  onChange,
}: {
  value: Judgement;
  onChange: (part: Partial<Judgement>) => void;
}) {
  return (
    <>
      <SelectField
        path="c.verdict"
        label="Verdict"
        value={value.verdict}
        options={VERDICTS.map((v) => ({ value: v, text: term(v) }))}
        onChange={(v) => onChange({ verdict: v as CompatNote["verdict"] })}
      />
      <TextField
        path="c.condition"
        label="Condition"
        value={value.condition}
        onChange={(condition) => onChange({ condition })}
        span
      />
      <TextField
        path="c.evidence"
        label="Evidence: what was observed, or the source"
        value={value.evidence}
        onChange={(evidence) => onChange({ evidence })}
        span
      />
    </>
  );
}

interface SlipProps<T> {
  open: boolean;
  onClose: () => void;
  /** The note, and what it is about. */
  id: string;
  name: string;
  send: (value: T) => Promise<Done>;
}

const EMPTY_TRIAL: Omit<Trial, "at" | "by"> = {
  changed: "",
  expected: "",
  happened: "",
  outcome: "unclear",
};

/** An attempt: what was changed, what happened. */
export function TrialSlip({ open, onClose, id, name, send }: SlipProps<Omit<Trial, "at" | "by">>) {
  const [trial, setTrial] = useKept(`trial of ${id}`, EMPTY_TRIAL);
  const texts = [
    ["changed", "What was changed or tested"],
    ["expected", "Expected result"],
    ["happened", "Actual result"],
  ] as const;
  return (
    <SlipForm
      open={open}
      onClose={onClose}
      title={`Test of ${name}`}
      button="Save"
      send={async () => {
        const answer = await send(trial);
        if (answer.ok) setTrial(EMPTY_TRIAL);
        return answer;
      }}
    >
      <div className="space-y-3">
        {texts.map(([key, label]) => (
          <TextField
            key={key}
            path={`t.${key}`}
            label={label}
            value={trial[key]}
            onChange={(text) => setTrial({ ...trial, [key]: text })}
          />
        ))}
        <ChoiceField
          path="t.outcome"
          label="Outcome"
          value={trial.outcome}
          options={(["worked", "did not work", "unclear"] as const).map((o) => ({ value: o, text: term(o) }))}
          onChange={(outcome) => setTrial({ ...trial, outcome })}
        />
      </div>
    </SlipForm>
  );
}

/** The verdict of a note, judged again. */
export function VerdictSlip({
  open,
  onClose,
  id,
  name,
  note,
  send,
}: SlipProps<Judgement> & { note: CompatNote }) {
  const { verdict, condition, evidence } = note;
  const begun: Judgement = { verdict, condition, evidence };
  const [part, setPart, other, drop] = useKept(`verdict on ${id}`, begun);
  return (
    <SlipForm
      open={open}
      onClose={onClose}
      title={`Verdict on ${name}`}
      button="Save"
      send={async () => {
        const answer = await send(part);
        if (answer.ok) drop();
        return answer;
      }}
    >
      <div className="grid gap-y-3">
        <OtherVersion
          other={other}
          words={(j) => [j.verdict, j.condition, j.evidence].filter(Boolean).join("; ")}
          onTake={setPart}
          onDrop={drop}
        />
        <JudgementFields value={part} onChange={(change) => setPart({ ...part, ...change })} />
      </div>
    </SlipForm>
  );
}
