import Link from "next/link";
import { parametersOf } from "@/core/answers";
import type { InForce, Level } from "@/core/parameter";
import { PARAMETER } from "@/core/site";
import { EntryTable } from "../fields/entry-table";
import { Marks } from "../fields/fields";
import type { PartProps } from "./zone-props";

const FROM: Readonly<Record<Level, string>> = {
  profile: "OS profile",
  site: "site",
  sheet: "this sheet",
  machine: "machine",
};

const valueWords = ({ isSecret }: InForce, value: string): string =>
  isSecret ? "secret" : value === "" ? "(empty)" : value;

/** What is in force under each name, with the level that gives it and those that it goes before. */
export function ParametersInForce({ all }: { all: readonly InForce[] }) {
  return (
    <table className="table max-w-4xl" aria-label="Effective parameters">
      <thead>
        <tr>
          <th>Name</th>
          <th>Effective value</th>
          <th>Source</th>
          <th>Overrides</th>
        </tr>
      </thead>
      <tbody>
        {all.map((one) => (
          <tr key={one.name}>
            <td className="value">{one.name}</td>
            <td className="value font-semibold [overflow-wrap:anywhere]">{valueWords(one, one.value)}</td>
            <td>{FROM[one.from]}</td>
            <td className="quiet">
              {one.before.map(({ from, value }) => `${FROM[from]}: ${valueWords(one, value)}`).join("; ") ||
                "–"}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** Parameters of the sheet, and what is in force of all that its commands may name. */
export function Parameters({ view, sheet, edit, marks }: PartProps) {
  const { machine, site, profile } = view.context;
  const all = parametersOf({ machine, site, profile, sheet });
  return (
    <div className="min-w-0 space-y-2">
      <div>
        <div className="flex items-center gap-2">
          <span className="label">
            Parameters of this sheet. Commands use one as{" "}
            <span className="value normal-case">{"{parameter.name}"}</span>, quoted automatically.
          </span>
          <Marks marks={marks("answers.parameters")} />
        </div>
        <EntryTable
          path="answers.parameters"
          label="Parameters"
          value={sheet.answers.parameters}
          of={PARAMETER}
          onChange={(parameters) => edit({ "answers.parameters": parameters })}
        />
      </div>
      {all.length > 0 && <ParametersInForce all={all} />}
      {all.some((p) => p.isSecret) && (
        <p className="quiet">
          Secrets are stored encrypted for this sheet on its
          <Link className="link" href={`/builds/${view.build.id}/passwords`}>
            Passwords
          </Link>
          page, and are destroyed when its run ends.
        </p>
      )}
    </div>
  );
}
