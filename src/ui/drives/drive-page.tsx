"use client";

import type { Answer } from "@/contract";
import { term } from "@/core/text";
import { useRouter } from "next/navigation";
import { useState } from "react";
import { SPEED_CLASSES, WRITTEN, type RegisterEntry, type Wipe } from "@/core/machine";
import type { Problem } from "@/core/result";
import { OtherVersion } from "../draft/other-version";
import { useKept } from "../draft/use-kept";
import { NoteField, SelectField, TextField } from "../fields/fields";
import { Tick } from "../fields/ticks";
import { Slip } from "../frame/dialog";
import { Problems } from "../frame/problems";
import { WritingSlip, type Writing } from "./writing-slip";

const METHODS: Wipe["method"][] = [
  "secure erase of the drive",
  "overwritten once",
  "crypto erase",
  "signatures only",
  "destroyed",
];

interface DriveActs {
  entry: RegisterEntry;
  tail: string;
  keep: (
    part: Partial<Pick<RegisterEntry, "label" | "notes" | "holds" | "written" | "speedClass">>,
  ) => Promise<Answer<number>>;
  shelve: (place: string, spare: boolean) => Promise<Answer<number>>;
  wipe: (method: Wipe["method"], remark: string) => Promise<Answer<number>>;
  write: (writing: Writing) => Promise<Answer<number>>;
  images: readonly { id: string; name: string }[];
}

/** Carries out one of the acts; what was refused is shown and stays typed, else `kept` gives it up and the page is asked again. */
type Doing = (answer: Promise<Answer<number>>, kept: () => void) => Promise<void>;

const asTyped = (text: string): string => text;
const nothingTyped = (): void => undefined;

/** What can be done to a drive in the register: named, laid on a shelf, erased and written down. */
export function DriveActions(acts: DriveActs) {
  const router = useRouter();
  const [problems, setProblems] = useState<Problem[]>([]);
  const [slip, setSlip] = useState<"shelf" | "wipe" | "write" | null>(null);
  const doing: Doing = async (answer, kept) => {
    const a = await answer;
    setProblems(a.ok ? [] : a.problems);
    // Where somebody saved in between, what stands now is shown beside what was typed.
    router.refresh();
    if (!a.ok) return;
    kept();
    setSlip(null);
  };
  const close = (): void => setSlip(null);
  const { entry, images, write } = acts;
  return (
    <>
      <WrittenOn {...acts} doing={doing} />
      {entry.state !== "destroyed" && (
        <div className="mt-3 flex flex-wrap gap-3">
          <button type="button" className="btn" onClick={() => setSlip("shelf")}>
            Move to storage
          </button>
          {isCarried(entry) && (
            <button type="button" className="btn" onClick={() => setSlip("write")}>
              Record an image write
            </button>
          )}
          <button type="button" className="btn" onClick={() => setSlip("wipe")}>
            Record an erasure
          </button>
        </div>
      )}
      <Problems problems={problems} />
      <WritingSlip
        open={slip === "write"}
        onClose={close}
        images={images}
        keep={(writing, kept) => void doing(write(writing), kept)}
      />
      <ShelfSlip {...acts} open={slip === "shelf"} onClose={close} doing={doing} />
      <ErasureSlip {...acts} open={slip === "wipe"} onClose={close} doing={doing} />
    </>
  );
}

/** A stick or a card. */
const isCarried = ({ media }: RegisterEntry): boolean => media === "usb" || media === "card";

/** What people write about it, kept by a button since each save is a line of its history. */
function WrittenOn({ entry, keep, doing }: DriveActs & { doing: Doing }) {
  const [label, setLabel, otherLabel, dropLabel] = useKept("label", entry.label);
  const [notes, setNotes, otherNotes, dropNotes] = useKept("notes", entry.notes);
  return (
    <>
      <OtherVersion other={otherLabel} words={asTyped} onTake={setLabel} onDrop={dropLabel} />
      <OtherVersion other={otherNotes} words={asTyped} onTake={setNotes} onDrop={dropNotes} />
      <div className="grid max-w-3xl gap-x-8 gap-y-3 md:grid-cols-2">
        <TextField path="label" label="Label on the device" value={label} onChange={setLabel} />
        {isCarried(entry) && (
          <>
            <SelectField
              path="speed"
              label="Speed class"
              value={entry.speedClass ?? ""}
              empty="unknown"
              options={SPEED_CLASSES.map((c) => ({ value: c, text: c }))}
              onChange={(v) => void doing(keep({ speedClass: v || null }), nothingTyped)}
            />
            <SelectField
              path="written"
              label="Write mode"
              value={entry.written ?? ""}
              empty="not specified"
              options={WRITTEN.map((w) => ({ value: w, text: term(w) }))}
              onChange={(v) => void doing(keep({ written: v || null }), nothingTyped)}
            />
          </>
        )}
        <NoteField path="notes" label="Notes" span maxLength={4000} value={notes} onChange={setNotes} />
      </div>
      {(label !== entry.label || notes !== entry.notes) && (
        <button
          type="button"
          className="btn btn-primary mt-3"
          onClick={() =>
            void doing(keep({ label, notes }), () => {
              dropLabel();
              dropNotes();
            })
          }
        >
          Save
        </button>
      )}
    </>
  );
}

type SlipOf = DriveActs & { open: boolean; onClose: () => void; doing: Doing };

function ShelfSlip({ entry, shelve, open, onClose, doing }: SlipOf) {
  const [place, setPlace, otherPlace, dropPlace] = useKept("place", entry.place);
  const [spare, setSpare, , dropSpare] = useKept("spare", entry.spare);
  return (
    <Slip open={open} onClose={onClose} title="Move to storage">
      <OtherVersion other={otherPlace} words={asTyped} onTake={setPlace} onDrop={dropPlace} />
      <TextField
        path="place"
        label="Storage location"
        value={place}
        placeholder="store room, shelf 2"
        onChange={setPlace}
      />
      <div className="mt-3">
        <Tick label="spare drive" value={spare} onChange={setSpare} />
      </div>
      <button
        type="button"
        className="btn btn-primary mt-4"
        onClick={() =>
          void doing(shelve(place, spare), () => {
            dropPlace();
            dropSpare();
          })
        }
      >
        Move
      </button>
    </Slip>
  );
}

function ErasureSlip({ entry, tail, wipe, open, onClose, doing }: SlipOf) {
  const [method, setMethod] = useState<Wipe["method"]>("secure erase of the drive");
  const [remark, setRemark] = useKept("remark", "");
  const [typedTail, setTypedTail] = useState("");
  return (
    <Slip open={open} onClose={onClose} title="Record an erasure">
      <p className="mb-3">
        Contents now: <span className="font-medium">{entry.holds || "unknown"}</span>. Derrick does not erase
        drives; it records what was done, when and by whom.
      </p>
      <div className="space-y-3">
        <SelectField
          path="method"
          label="Method"
          value={method}
          options={METHODS.map((m) => ({ value: m, text: term(m) }))}
          onChange={setMethod}
        />
        <TextField
          path="remark"
          label="Remark"
          value={remark}
          placeholder="tool, order number"
          onChange={setRemark}
        />
        {tail && (
          <TextField
            path="tail"
            label="Last characters of the serial number, read from the drive itself"
            value={typedTail}
            placeholder={`${tail.length} characters`}
            onChange={setTypedTail}
          />
        )}
      </div>
      <button
        type="button"
        className="btn btn-primary mt-4"
        disabled={tail !== "" && typedTail.trim().toUpperCase() !== tail.toUpperCase()}
        onClick={() => void doing(wipe(method, remark), () => setRemark(""))}
      >
        Save
      </button>
    </Slip>
  );
}
