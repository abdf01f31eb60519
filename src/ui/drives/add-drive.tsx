"use client";

import { useState } from "react";
import type { Answer } from "@/contract";
import { MEDIA, type Drive, MEDIA_NAMES } from "@/core/machine";
import { formatBytes, parseByteSize } from "@/core/units";
import { useKept } from "../draft/use-kept";
import { ParsedField, SelectField, TextField } from "../fields/fields";
import { SlipForm } from "../frame/slip-form";

interface Values {
  label: string;
  serial: string;
  model: string;
  media: Drive["media"];
  sizeBytes: number;
  place: string;
  spare: boolean;
  holds: string;
}

const EMPTY: Values = {
  label: "",
  serial: "",
  model: "",
  media: "usb",
  sizeBytes: 0,
  place: "",
  spare: false,
  holds: "",
};

/** A stick, card or spare that no machine has told of. */
export function AddDrive({ add }: { add: (values: Values) => Promise<Answer<string>> }) {
  const [open, setOpen] = useState(false);
  const [values, setValues] = useKept("new drive", EMPTY);
  const set = (part: Partial<Values>) => setValues({ ...values, ...part });
  return (
    <>
      <button type="button" className="btn" onClick={() => setOpen(true)}>
        Add a USB stick, card or spare drive
      </button>
      <SlipForm
        open={open}
        onClose={() => setOpen(false)}
        title="Add to the drive inventory"
        button="Save"
        send={async () => {
          const answer = await add(values);
          if (answer.ok) setValues(EMPTY);
          return answer;
        }}
      >
        <div className="grid gap-x-6 gap-y-3 md:grid-cols-2">
          <TextField
            path="n.label"
            label="Label on the device"
            value={values.label}
            onChange={(label) => set({ label })}
          />
          <TextField
            path="n.serial"
            label="Serial"
            value={values.serial}
            onChange={(serial) => set({ serial })}
          />
          <TextField path="n.model" label="Model" value={values.model} onChange={(model) => set({ model })} />
          <SelectField
            path="n.media"
            label="Class"
            value={values.media}
            options={MEDIA.filter((m) => m !== "virtual").map((m) => ({ value: m, text: MEDIA_NAMES[m] }))}
            onChange={(v) => set({ media: v as Drive["media"] })}
          />
          <ParsedField
            path="n.size"
            label="Size"
            value={values.sizeBytes}
            placeholder="16 GB"
            format={(n) => (n === 0 ? "" : formatBytes(n))}
            parse={(t) => {
              const read = parseByteSize(t);
              return read.ok ? { value: read.value } : { problem: read.problems[0]?.message ?? "a size" };
            }}
            onChange={(sizeBytes) => set({ sizeBytes })}
          />
          <TextField
            path="n.place"
            label="Storage location"
            value={values.place}
            placeholder="store room, shelf 2"
            onChange={(place) => set({ place })}
          />
          <TextField
            path="n.holds"
            label="Contents"
            value={values.holds}
            onChange={(holds) => set({ holds })}
          />
          <label className="flex items-center gap-2 self-end pb-1">
            <input
              type="checkbox"
              className="checkbox checkbox-xs checkbox checkbox-sm"
              checked={values.spare}
              onChange={(e) => set({ spare: e.target.checked })}
            />
            spare drive
          </label>
        </div>
      </SlipForm>
    </>
  );
}
