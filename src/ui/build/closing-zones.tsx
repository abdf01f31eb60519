import { ChoiceField, NoteField, TextField } from "../fields/fields";
import type { ZoneProps } from "./zone-props";

const LICENCES = [
  { value: "none needed", text: "none needed" },
  { value: "licensed", text: "licensed" },
  { value: "evaluation", text: "evaluation" },
] as const;

export function SettleZone({ view }: Pick<ZoneProps, "view">) {
  const steps = view.evaluation.steps.filter((s) => s.zone === "I");
  return (
    <ol className="list-inside list-decimal">
      {steps.map((s) => (
        <li key={s.id}>
          {s.title}
          {s.do.length > 0 && <span className="quiet"> – {s.do.join(" ")}</span>}
        </li>
      ))}
    </ol>
  );
}

export function AcceptZone({ view }: Pick<ZoneProps, "view">) {
  return (
    <p>
      After the run, import a collector bundle of {view.context.machine?.name ?? "the machine"} on the
      acceptance page of the run. Serial number, system, boot mode, drives, port, address, names, time zone,
      locale and keyboard layout are compared with this sheet; all protected drives are checked again.
    </p>
  );
}

export function HandOverZone({ view, sheet, edit, marks }: ZoneProps) {
  const { handOver } = sheet;
  const days = view.context.profile?.evaluationDays;
  return (
    <div className="grid gap-x-8 gap-y-3 md:grid-cols-2">
      <TextField
        path="handOver.owner"
        label="Handed over to"
        marks={marks("handOver.owner")}
        value={handOver.owner}
        placeholder="person or team"
        onChange={(v) => edit({ "handOver.owner": v })}
      />
      <ChoiceField
        path="handOver.licence"
        label="Licence"
        marks={marks("handOver.licence")}
        value={handOver.licence}
        options={LICENCES}
        onChange={(v) => edit({ "handOver.licence": v })}
        hint={days && `without a licence it runs ${days} days`}
      />
      {handOver.licence !== "licensed" && (
        <TextField
          path="handOver.evaluationEnds"
          label="Last day of the evaluation"
          type="date"
          marks={marks("handOver.evaluationEnds")}
          value={handOver.evaluationEnds ?? ""}
          onChange={(v) => edit({ "handOver.evaluationEnds": v || null })}
        />
      )}
      <NoteField
        path="handOver.notes"
        label="On-call notes"
        marks={marks("handOver.notes")}
        span
        value={handOver.notes}
        onChange={(v) => edit({ "handOver.notes": v })}
      />
    </div>
  );
}
