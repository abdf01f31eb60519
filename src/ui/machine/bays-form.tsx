"use client";

import type { Typed } from "@/core/machine";
import { bound } from "../draft/bound";
import { ParsedField, SelectField, TextField } from "../fields/fields";
import { wholeField } from "../fields/numbers";
import { useMachine } from "./machine-draft";

type Group = Typed["bays"][number];
const NEW_GROUP: Group = {
  title: "Front",
  face: "front",
  size: "small",
  columns: 8,
  rows: 1,
  first: 0,
  order: "rows",
  prefix: "",
};

const whole = wholeField("a whole number", (n) => n < 1000);
const FACES = (["front", "rear", "inside"] as const).map((v) => ({ value: v, text: v }));
const ORDERS = [
  { value: "rows", text: "row by row" },
  { value: "columns", text: "column by column" },
] as const;

/** The bays of the chassis, block by block, as the maker numbers them; the drawing follows. */
export function BaysForm() {
  const machine = useMachine();
  const { bays } = machine.document.typed;
  const set = (next: Group[]): void => machine.type({ "typed.bays": next });
  return (
    <>
      {bays.map((_, i) => (
        <BlockFields key={i} i={i} remove={() => set(bays.filter((_, j) => j !== i))} />
      ))}
      <button type="button" className="link" onClick={() => set([...bays, NEW_GROUP])}>
        Add bay block
      </button>
    </>
  );
}

function BlockFields({ i, remove }: { i: number; remove: () => void }) {
  const field = bound(useMachine());
  return (
    <fieldset className="mb-3 grid items-end gap-x-5 gap-y-2 border-b pb-3 sm:grid-cols-2 md:grid-cols-4 lg:grid-cols-[2fr_1.1fr_1fr_1fr_1.2fr_2.2fr_1fr_auto] border-base-300">
      <legend className="sr-only">Bay block {i + 1}</legend>
      <TextField {...field(`typed.bays.${i}.title`, "Block")} />
      <SelectField {...field(`typed.bays.${i}.face`, "Side")} options={FACES} />
      <ParsedField {...stated(field(`typed.bays.${i}.columns`, "Columns"))} {...whole} />
      <ParsedField {...stated(field(`typed.bays.${i}.rows`, "Rows"))} {...whole} />
      <ParsedField {...stated(field(`typed.bays.${i}.first`, "First number"))} {...whole} />
      <SelectField {...field(`typed.bays.${i}.order`, "Numbering")} options={ORDERS} />
      <TextField {...field(`typed.bays.${i}.prefix`, "Prefix")} />
      <button type="button" className="link quiet justify-self-start" onClick={remove}>
        Remove
      </button>
    </fieldset>
  );
}

/** A number that cannot be left open: what is deleted comes back. */
const stated = <F extends { onChange: (n: number) => void }>(field: F) => ({
  ...field,
  onChange: (n: number | null) => n !== null && field.onChange(n),
});
