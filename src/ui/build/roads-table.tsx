import { terms } from "@/core/text";
import { useId, type ReactNode } from "react";
import type { RoadLine } from "@/core/sheet";
import type { Road } from "@/core/image";
import { formatDuration } from "@/core/units";
import { Field, type FieldMark } from "../fields/fields";
import { Unfold } from "../fields/unfold";
import { RadioWord } from "../fields/radio-word";

const TITLES: Record<Road, string> = { fresh: "fresh installation", upgrade: "upgrade", convert: "convert" };

interface Props {
  roads: readonly RoadLine[];
  chosen: Road;
  marks: FieldMark[];
  onChoose: (road: Road) => void;
}

/** The road to the wanted system in one line, with its time and what it loses; the others beside it on demand. */
export function RoadChoice({ roads, chosen, marks, onChoose }: Props) {
  const own = roads.find((r) => r.road === chosen);
  const open = roads.filter((r) => r.open);
  const plain = open.length === 1 && open[0]?.legs.length === 1 && chosen === "fresh";
  // With nothing known on the machine there is nothing to compare.
  const alone = plain && roads.every((r) => r.open || r.why.startsWith("none"));
  return (
    <Field path="image.road" label="Installation method" marks={marks} span>
      {own && <OwnRoad road={own} />}
      {alone ? (
        <p className="quiet">{roads.find((r) => !r.open)?.why}</p>
      ) : (
        <Unfold
          title={`Compare installation methods (${open.length} of ${roads.length} available)`}
          open={own?.open === false}
        >
          <RoadsTable {...{ roads, chosen, onChoose }} />
          {open
            .filter((r) => r.road === chosen)
            .flatMap((r) => [...(r.why ? [r.why] : []), ...r.words])
            .map((w) => (
              <p key={w} className="mt-1 max-w-[44rem] text-[0.93rem]">
                {w}
              </p>
            ))}
        </Unfold>
      )}
    </Field>
  );
}

const OwnRoad = ({ road }: { road: RoadLine }) =>
  road.open ? (
    <p>
      {road.legs.map((leg, i) => (
        <span key={leg.words}>
          {i > 0 && ", then "}
          <b>{leg.words}</b>
        </span>
      ))}
      <span className="value">
        {formatDuration(road.likelySeconds)}–{formatDuration(road.lateSeconds)}
      </span>
      {road.loses.length > 0 && <span className="text-error">; loses {terms(road.loses)}</span>}
    </p>
  ) : (
    <p>
      <b>{TITLES[road.road]}</b> <span className="text-error">not available: {road.why}</span>
    </p>
  );

function RoadsTable({ roads, chosen, onChoose }: Omit<Props, "marks">) {
  const name = useId();
  const rows: { title: string; of: (road: RoadLine) => ReactNode }[] = [
    { title: "keeps", of: (r) => terms(r.keeps) || "nothing" },
    {
      title: "loses",
      of: (r) => (r.loses.length > 0 ? <span className="text-error">{terms(r.loses)}</span> : "nothing"),
    },
  ];
  return (
    <div className="overflow-x-auto">
      <table className="table min-w-[34rem]" aria-label="Compare installation methods">
        <thead>
          <tr>
            <th className="w-20"></th>
            {roads.map((r) => (
              <th key={r.road} className="w-[30%]">
                <RadioWord
                  name={name}
                  text={TITLES[r.road]}
                  checked={chosen === r.road}
                  onChoose={() => onChoose(r.road)}
                />
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          <tr>
            <th scope="row">method</th>
            {roads.map((r) => (
              <td key={r.road} className="align-top">
                <How road={r} />
              </td>
            ))}
          </tr>
          <tr>
            <th scope="row">time</th>
            {roads.map((r) => (
              <td key={r.road} className="value">
                {r.open && `${formatDuration(r.likelySeconds)} … ${formatDuration(r.lateSeconds)}`}
              </td>
            ))}
          </tr>
          {rows.map(({ title, of }) => (
            <tr key={title}>
              <th scope="row">{title}</th>
              {roads.map((r) => (
                <td key={r.road}>{r.open && of(r)}</td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

/** The legs of a road in order, or why it is closed. */
const How = ({ road }: { road: RoadLine }) =>
  road.open ? (
    <ol>
      {road.legs.map((leg, i) => (
        <li key={leg.words}>
          {i > 0 && <span className="quiet">then </span>}
          {leg.words}
          {leg.through === "running system" && <span className="quiet">, in the running system</span>}
          {leg.image === null && leg.through === "installer" && (
            <strong className="text-error"> (image missing)</strong>
          )}
        </li>
      ))}
    </ol>
  ) : (
    <span className="quiet">{road.why}</span>
  );
