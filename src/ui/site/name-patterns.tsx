"use client";

import { term } from "@/core/text";
import { namePatternProblem, nextName } from "@/core/identity";
import { ROLES } from "@/core/machine";
import type { Site } from "@/core/site";
import { bound, type Typing } from "../draft/bound";
import { ParsedField, SelectField } from "../fields/fields";
import { judgedText } from "../fields/numbers";

const ROLE_OPTIONS = ROLES.map((r) => ({ value: r as string, text: term(r) }));

const PATTERN = judgedText(namePatternProblem);

/** The name of the site in letters that a host name may have; something to begin with. */
const firstPattern = (name: string): string =>
  `${
    name
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, "-")
      .replace(/^-|-$/g, "")
      .slice(0, 40) || "host"
  }-#`;

/** How hosts are called at a site: one pattern a row, for machines of a role or for every one. */
export function NamePatterns({ typing }: { typing: Typing<Site> }) {
  const { naming, name } = typing.document;
  const set = (next: Site["naming"]): void => typing.type({ naming: next });
  return (
    <>
      {naming.length === 0 && (
        <p className="quiet mb-2">No pattern: each build sheet sets its own host name.</p>
      )}
      {naming.map((_, i) => (
        <Pattern key={i} {...{ typing, i }} remove={() => set(naming.filter((__, o) => o !== i))} />
      ))}
      <button
        type="button"
        className="btn"
        onClick={() => set([...naming, { role: null, pattern: firstPattern(name) }])}
      >
        Add pattern
      </button>
    </>
  );
}

function Pattern({ typing, i, remove }: { typing: Typing<Site>; i: number; remove: () => void }) {
  const field = bound(typing);
  const role = field(`naming.${i}.role`, "Machines");
  const pattern = field(`naming.${i}.pattern`, "Pattern");
  return (
    <fieldset className="mb-3 grid items-end gap-x-6 gap-y-2 sm:grid-cols-[11rem_14rem_minmax(0,1fr)_auto]">
      <legend className="sr-only">Pattern {i + 1}</legend>
      <SelectField
        {...role}
        value={role.value ?? ""}
        options={ROLE_OPTIONS}
        empty="all machines"
        onChange={(r) => role.onChange((r || null) as Site["naming"][number]["role"])}
      />
      <ParsedField {...pattern} {...PATTERN} />
      <p className="quiet mb-1">
        first name: <span className="value">{nextName(pattern.value, []) ?? "none"}</span>
      </p>
      <button type="button" className="link quiet mb-1" onClick={remove}>
        Remove
      </button>
    </fieldset>
  );
}
