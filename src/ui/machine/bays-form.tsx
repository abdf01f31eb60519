"use client";

import { useState } from "react";
import type { Typed } from "@/core/machine";
import { ParsedField, SelectField, TextField } from "../fields/fields";
import { Problems } from "../frame/problems";
import { useSave, type SaveTyped } from "./save-typed";

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

/** The bays of the chassis, block by block, as the maker numbers them; the drawing follows. */
export function BaysForm({ typed, save }: { typed: Typed; save: SaveTyped }) {
  const { problems, keep } = useSave(save);
  const [bays, setBays] = useState(typed.bays);
  const set = (i: number, part: Partial<Group>) =>
    setBays(bays.map((b, j) => (j === i ? { ...b, ...part } : b)));
  const whole = (text: string) =>
    /^\d{1,3}$/.test(text.trim()) ? { value: Number(text) } : { problem: "a whole number" };
  const numbers: [key: "columns" | "rows" | "first", label: string][] = [
    ["columns", "Across"],
    ["rows", "Down"],
    ["first", "First number"],
  ];
  return (
    <form
      onSubmit={(e) => {
        e.preventDefault();
        void keep({ bays });
      }}
    >
      {bays.map((b, i) => (
        <fieldset
          key={i}
          className="mb-3 grid items-end gap-x-5 gap-y-2 border-b pb-3 sm:grid-cols-4 lg:grid-cols-8 border-base-300"
        >
          <legend className="sr-only">Block of bays {i + 1}</legend>
          <TextField
            path={`b${i}.title`}
            label="Block"
            value={b.title}
            onChange={(title) => set(i, { title })}
          />
          <SelectField
            path={`b${i}.face`}
            label="Face"
            value={b.face}
            options={["front", "rear", "inside"].map((v) => ({ value: v, text: v }))}
            onChange={(v) => set(i, { face: v as Group["face"] })}
          />
          {numbers.map(([key, label]) => (
            <ParsedField
              key={key}
              path={`b${i}.${key}`}
              label={label}
              value={b[key]}
              format={String}
              parse={whole}
              onChange={(n) => set(i, { [key]: n })}
            />
          ))}
          <SelectField
            path={`b${i}.order`}
            label="Numbers run"
            value={b.order}
            options={[
              { value: "rows", text: "along rows" },
              { value: "columns", text: "down columns" },
            ]}
            onChange={(v) => set(i, { order: v as Group["order"] })}
          />
          <TextField
            path={`b${i}.prefix`}
            label="Word in front"
            value={b.prefix}
            onChange={(prefix) => set(i, { prefix })}
          />
          <button
            type="button"
            className="link quiet justify-self-start"
            onClick={() => setBays(bays.filter((_, j) => j !== i))}
          >
            remove
          </button>
        </fieldset>
      ))}
      <div className="flex flex-wrap items-center gap-4">
        <button type="button" className="link" onClick={() => setBays([...bays, NEW_GROUP])}>
          add a block of bays
        </button>
        {JSON.stringify(bays) !== JSON.stringify(typed.bays) && (
          <button type="submit" className="btn">
            Keep the bays
          </button>
        )}
      </div>
      <Problems problems={problems} />
    </form>
  );
}
