"use client";

import { useRouter } from "next/navigation";
import { useState } from "react";
import { SPEED_CLASSES, WRITTEN, type RegisterEntry, type Wipe } from "@/core/machine";
import type { Problem } from "@/core/result";
import { SelectField, TextField } from "../fields/fields";
import { Slip } from "../frame/dialog";
import { Problems } from "../frame/problems";
import { WritingSlip, type Writing } from "./writing-slip";

type Answer = { ok: true; value: number } | { ok: false; problems: Problem[] };
const METHODS: Wipe["method"][] = [
  "secure erase of the drive",
  "overwritten once",
  "crypto erase",
  "signatures only",
  "destroyed",
];

/** What can be done to a drive in the register: named, laid on a shelf, erased and written down. */
export function DriveActions({
  entry,
  tail,
  keep,
  shelve,
  wipe,
  write,
  images,
}: {
  entry: RegisterEntry;
  tail: string;
  keep: (
    part: Partial<Pick<RegisterEntry, "label" | "notes" | "holds" | "written" | "speedClass">>,
  ) => Promise<Answer>;
  shelve: (place: string, spare: boolean) => Promise<Answer>;
  wipe: (method: Wipe["method"], remark: string) => Promise<Answer>;
  write: (writing: Writing) => Promise<Answer>;
  images: readonly { id: string; name: string }[];
}) {
  const router = useRouter();
  const [problems, setProblems] = useState<Problem[]>([]);
  const [slip, setSlip] = useState<"shelf" | "wipe" | "write" | null>(null);
  const [place, setPlace] = useState(entry.place);
  const [spare, setSpare] = useState(entry.spare);
  const [method, setMethod] = useState<Wipe["method"]>("secure erase of the drive");
  const [remark, setRemark] = useState("");
  const [typedTail, setTypedTail] = useState("");
  const [label, setLabel] = useState(entry.label);
  const [notes, setNotes] = useState(entry.notes);
  const done = async (answer: Promise<Answer>) => {
    const a = await answer;
    setProblems(a.ok ? [] : a.problems);
    if (a.ok) {
      setSlip(null);
      router.refresh();
    }
  };
  const stick = entry.media === "usb" || entry.media === "card";
  return (
    <>
      <div className="grid max-w-3xl gap-x-8 gap-y-3 sm:grid-cols-2">
        <TextField path="label" label="Name written on it" value={label} onChange={setLabel} />
        {stick && (
          <SelectField
            path="speed"
            label="Speed class"
            value={entry.speedClass ?? ""}
            empty="not known"
            options={SPEED_CLASSES.map((c) => ({ value: c, text: c }))}
            onChange={(v) => void done(keep({ speedClass: (v || null) as RegisterEntry["speedClass"] }))}
          />
        )}
        {stick && (
          <SelectField
            path="written"
            label="How it was written"
            value={entry.written ?? ""}
            empty="not said"
            options={WRITTEN.map((w) => ({ value: w, text: w }))}
            onChange={(v) => void done(keep({ written: (v || null) as RegisterEntry["written"] }))}
          />
        )}
        <label className="col-span-full">
          <span className="label">Notes</span>
          <textarea
            className="textarea"
            rows={2}
            value={notes}
            maxLength={4000}
            onChange={(e) => setNotes(e.target.value)}
          />
        </label>
      </div>
      <div className="mt-3 flex flex-wrap gap-3">
        {(label !== entry.label || notes !== entry.notes) && (
          <button type="button" className="btn btn-primary" onClick={() => void done(keep({ label, notes }))}>
            Keep
          </button>
        )}
        {entry.state !== "destroyed" && (
          <>
            <button type="button" className="btn" onClick={() => setSlip("shelf")}>
              Lay it on a shelf
            </button>
            {stick && (
              <button type="button" className="btn" onClick={() => setSlip("write")}>
                Write down a writing
              </button>
            )}
            <button type="button" className="btn" onClick={() => setSlip("wipe")}>
              Write down an erasure
            </button>
          </>
        )}
      </div>
      <Problems problems={problems} />
      <WritingSlip
        open={slip === "write"}
        onClose={() => setSlip(null)}
        images={images}
        keep={(writing) => void done(write(writing))}
      />
      <Slip open={slip === "shelf"} onClose={() => setSlip(null)} title="On the shelf">
        <TextField
          path="place"
          label="Where it lies"
          value={place}
          placeholder="store room, shelf 2"
          onChange={setPlace}
        />
        <label className="mt-3 flex items-center gap-2">
          <input
            type="checkbox"
            className="checkbox checkbox-xs checkbox checkbox-sm"
            checked={spare}
            onChange={(e) => setSpare(e.target.checked)}
          />
          kept as a spare
        </label>
        <button
          type="button"
          className="btn btn-primary mt-4"
          onClick={() => void done(shelve(place, spare))}
        >
          Lay it there
        </button>
      </Slip>
      <Slip open={slip === "wipe"} onClose={() => setSlip(null)} title="An erasure, for the ledger">
        <p className="mb-3">
          On it now: <span className="font-medium">{entry.holds || "not known"}</span>. Derrick erases nothing
          itself; it writes down what was done, when and by whom.
        </p>
        <SelectField
          path="method"
          label="How"
          value={method}
          options={METHODS.map((m) => ({ value: m, text: m }))}
          onChange={(v) => setMethod(v as Wipe["method"])}
        />
        <div className="mt-3">
          <TextField
            path="remark"
            label="Remark"
            value={remark}
            placeholder="tool, order number"
            onChange={setRemark}
          />
        </div>
        {tail && (
          <label className="mt-3 block">
            <span className="label">Tail of the serial that was erased, read from the drive</span>
            <input
              className="input"
              value={typedTail}
              placeholder={`${tail.length} characters`}
              onChange={(e) => setTypedTail(e.target.value)}
            />
          </label>
        )}
        <button
          type="button"
          className="btn btn-primary mt-4"
          disabled={tail !== "" && typedTail.trim().toUpperCase() !== tail.toUpperCase()}
          onClick={() => void done(wipe(method, remark))}
        >
          Write it down
        </button>
      </Slip>
    </>
  );
}
