"use client";

import { term } from "@/core/text";
import { ROLES } from "@/core/machine";
import { PARAMETER } from "@/core/site";
import { bound } from "../draft/bound";
import { EntryTable } from "../fields/entry-table";
import { ChoiceField, ParsedField, SelectField, TextField } from "../fields/fields";
import { wholeField } from "../fields/numbers";
import { Tick } from "../fields/ticks";
import { useMachine } from "./machine-draft";

const seconds = wholeField("a number above 0", (n) => n > 0);

/** What it is for, where it stands, and the keys by which it is reached while it starts. */
export function PlaceForm({ isLaptop, circuits }: { isLaptop: boolean; circuits: string[] }) {
  const machine = useMachine();
  const { typed } = machine.document;
  const field = bound(machine);
  return (
    <>
      <div className="grid gap-x-8 gap-y-3 sm:grid-cols-2 md:grid-cols-3">
        <SelectField
          path="typed.role"
          label="Role"
          value={typed.role ?? ""}
          empty="unspecified"
          options={ROLES.map((r) => ({ value: r, text: term(r) }))}
          onChange={(role) => machine.type({ "typed.role": role || null })}
        />
        <ChoiceField
          {...field("typed.use", "Use")}
          options={[
            { value: "production", text: "production" },
            { value: "lab", text: "lab" },
          ]}
        />
        <TextField {...field("typed.place", "Location")} placeholder="rack A, unit 14" maxLength={120} />
        <TextField {...field("typed.keys.setup", "Firmware setup key")} placeholder="F2" maxLength={40} />
        <TextField {...field("typed.keys.bootMenu", "Boot menu key")} placeholder="F11" maxLength={40} />
        <TextField {...field("typed.keys.network", "Network boot key")} maxLength={40} />
        <ParsedField {...field("typed.keys.seconds", "Boot-key prompt after power-on, s")} {...seconds} />
        <SelectField
          {...field("typed.circuit", "Circuit")}
          empty={circuits.length > 0 ? "unspecified" : "the site has no circuits"}
          options={circuits.map((c) => ({ value: c, text: c }))}
        />
        <TextField
          {...field("typed.noise", "Noise")}
          placeholder="audible through the door"
          maxLength={200}
        />
      </div>
      <div className="mt-3 max-w-4xl">
        <span className="label">
          Parameters of this machine only; they override those of its sheet and its site.
        </span>
        <EntryTable {...field("typed.parameters", "Parameters")} of={PARAMETER} />
      </div>
      {isLaptop && (
        <fieldset className="mt-3 flex flex-wrap gap-x-6 gap-y-1">
          <legend className="label">Laptop as a server: checked items</legend>
          <Tick {...field("typed.laptop.lid", "Closing the lid does not stop it")} />
          <Tick {...field("typed.laptop.sleep", "Sleep is disabled")} />
          <Tick {...field("typed.laptop.battery", "The battery is healthy, or removed")} />
        </fieldset>
      )}
    </>
  );
}
