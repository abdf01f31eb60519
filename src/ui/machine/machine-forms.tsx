"use client";

import { useState } from "react";
import type { Answer } from "@/contract";
import type { Problem } from "@/core/result";
import { bound } from "../draft/bound";
import { ParsedField, SelectField, TextField } from "../fields/fields";
import { numberField } from "../fields/numbers";
import { CopyValue } from "../frame/copy-value";
import { Problems } from "../frame/problems";
import { useMachine } from "./machine-draft";

const MEDIA = [
  { value: "licensed", text: "licensed" },
  { value: "not licensed", text: "not licensed" },
  { value: "unknown", text: "unknown" },
] as const;
const rate = numberField(1e6, "a number of MB/s");

/** What no tool prints: whether there is a management controller and whether it may map media. */
export function ControllerForm() {
  const { document, type } = useMachine();
  const { present } = document.controller;
  // A machine without a controller maps nothing, whatever was said of it before.
  const say = (v: string) =>
    type({
      "controller.present": v === "" ? null : v === "yes",
      ...(v === "no" && { "controller.virtualMedia": "unknown" }),
    });
  return (
    <div className="grid items-end gap-4 sm:grid-cols-2 md:grid-cols-4">
      <SelectField
        path="controller.present"
        label="Management controller"
        value={present === null ? "" : present ? "yes" : "no"}
        empty="unknown"
        options={[
          { value: "yes", text: "present" },
          { value: "no", text: "none" },
        ]}
        onChange={say}
      />
      {present && <ReachFields />}
    </div>
  );
}

/** How it is reached, and what it may do. */
function ReachFields() {
  const field = bound(useMachine());
  return (
    <>
      <TextField {...field("controller.address", "Address")} maxLength={60} />
      <SelectField {...field("controller.virtualMedia", "Virtual media")} options={MEDIA} />
      <ParsedField
        {...field("controller.mediaBytesPerSecond", "Measured virtual media speed, MB/s")}
        {...rate}
      />
      <div className="sm:col-span-2">
        <TextField
          {...field("controller.loginKept", "Where the credentials are stored (never the password itself)")}
          maxLength={200}
        />
      </div>
    </>
  );
}

export function NotesForm() {
  const { document, type } = useMachine();
  return (
    <textarea
      aria-label="Notes"
      className="textarea"
      rows={3}
      maxLength={20_000}
      value={document.notes}
      placeholder="boot menu key, peculiarities"
      onChange={(e) => type({ notes: e.target.value })}
    />
  );
}

/** The collector in two ways: saved as a text, or posted back once with a code that names this machine. */
export function CollectorCard({
  issue,
}: {
  issue: () => Promise<Answer<{ code: string; command: string; minutes: number }>>;
}) {
  const [code, setCode] = useState<{ code: string; command: string; minutes: number } | null>(null);
  const [problems, setProblems] = useState<Problem[]>([]);
  return (
    <div className="space-y-2">
      <p>
        On a live system of this machine, as root if possible:{" "}
        <CopyValue value="sh collect.sh > bundle.txt" />. It only reads.{" "}
        <a className="link" href="/collect.sh" download="collect.sh">
          collect.sh
        </a>{" "}
        (on a BSD system{" "}
        <a className="link" href="/collect-bsd.sh" download="collect-bsd.sh">
          collect-bsd.sh
        </a>
        )
      </p>
      {code ? (
        <p>
          The collector posts its result once, within {code.minutes} minutes:{" "}
          <CopyValue value={code.command} />
        </p>
      ) : (
        <button
          type="button"
          className="link"
          onClick={async () => {
            const answer = await issue();
            if (answer.ok) setCode(answer.value);
            else setProblems(answer.problems);
          }}
        >
          Create a one-time code to post the result
        </button>
      )}
      <Problems problems={problems} />
    </div>
  );
}
