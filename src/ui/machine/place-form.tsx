"use client";

import { useState } from "react";
import { ROLES, type Typed } from "@/core/machine";
import { ChoiceField, ParsedField, SelectField, TextField } from "../fields/fields";
import { Problems } from "../frame/problems";
import { useSave, type SaveTyped } from "./save-typed";

const positive = (text: string): { value: number | null } | { problem: string } =>
  text.trim() === ""
    ? { value: null }
    : Number(text) > 0
      ? { value: Math.round(Number(text)) }
      : { problem: "a number above 0" };

const LAPTOP = [
  ["lid", "a closed lid does not stop it"],
  ["sleep", "it never goes to sleep"],
  ["battery", "its battery is sound, or taken out"],
] as const;

const placeOf = ({ role, use, place, circuit, keys, noise, laptop }: Typed) => ({
  laptop,
  role,
  use,
  place,
  circuit,
  keys,
  noise,
});

/** What it is for, where it stands, and the keys by which it is reached while it starts. */
export function PlaceForm({
  isLaptop,
  typed,
  circuits,
  save,
}: {
  isLaptop: boolean;
  typed: Typed;
  circuits: string[];
  save: SaveTyped;
}) {
  const { problems, keep } = useSave(save);
  const own = placeOf(typed);
  const [at, setAt] = useState(own);
  const changed = JSON.stringify(at) !== JSON.stringify(own);
  const setKey = (part: Partial<Typed["keys"]>) => setAt({ ...at, keys: { ...at.keys, ...part } });
  return (
    <form
      onSubmit={(e) => {
        e.preventDefault();
        void keep(at);
      }}
    >
      <div className="grid gap-x-8 gap-y-3 sm:grid-cols-3">
        <SelectField
          path="role"
          label="Role"
          value={at.role ?? ""}
          empty="not said"
          options={ROLES.map((r) => ({ value: r, text: r }))}
          onChange={(role) => setAt({ ...at, role: (role || null) as Typed["role"] })}
        />
        <ChoiceField
          path="use"
          label="Use"
          value={at.use}
          options={[
            { value: "production", text: "production" },
            { value: "lab", text: "lab" },
          ]}
          onChange={(use) => setAt({ ...at, use })}
        />
        <TextField
          path="place"
          label="Place"
          value={at.place}
          placeholder="rack A, unit 14"
          onChange={(place) => setAt({ ...at, place })}
        />
        <TextField
          path="keys.setup"
          label="Set-up key"
          value={at.keys.setup}
          placeholder="F2"
          onChange={(setup) => setKey({ setup })}
        />
        <TextField
          path="keys.bootMenu"
          label="Boot-menu key"
          value={at.keys.bootMenu}
          placeholder="F11"
          onChange={(bootMenu) => setKey({ bootMenu })}
        />
        <TextField
          path="keys.network"
          label="Network-boot key"
          value={at.keys.network}
          onChange={(network) => setKey({ network })}
        />
        <ParsedField
          path="keys.seconds"
          label="Seconds from power on to the keys"
          value={at.keys.seconds}
          format={(n) => (n === null ? "" : String(n))}
          parse={positive}
          onChange={(seconds) => setKey({ seconds })}
        />
        <SelectField
          path="circuit"
          label="Circuit"
          value={at.circuit}
          empty={circuits.length > 0 ? "not said" : "the site states none"}
          options={circuits.map((c) => ({ value: c, text: c }))}
          onChange={(circuit) => setAt({ ...at, circuit })}
        />
        <TextField
          path="noise"
          label="Noise, in words"
          value={at.noise}
          placeholder="heard through the door"
          onChange={(noise) => setAt({ ...at, noise })}
        />
      </div>
      {isLaptop && (
        <fieldset className="mt-3 flex flex-wrap gap-x-6 gap-y-1">
          <legend className="label">A laptop as a server: tried, and true</legend>
          {LAPTOP.map(([key, words]) => (
            <label key={key} className="flex items-center gap-2">
              <input
                type="checkbox"
                className="checkbox checkbox-xs checkbox checkbox-sm"
                checked={at.laptop[key]}
                onChange={(e) => setAt({ ...at, laptop: { ...at.laptop, [key]: e.target.checked } })}
              />
              {words}
            </label>
          ))}
        </fieldset>
      )}
      <Problems problems={problems} />
      {changed && (
        <button type="submit" className="btn mt-3">
          Keep
        </button>
      )}
    </form>
  );
}
