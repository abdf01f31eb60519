"use client";

import { useRouter } from "next/navigation";
import { useState } from "react";
import type { Facts } from "@/core/machine";
import type { Problem } from "@/core/result";
import { bound } from "../draft/bound";
import { ParsedField, SelectField, TextField } from "../fields/fields";
import { numberField } from "../fields/numbers";
import { CopyValue } from "../frame/copy-value";
import { Problems } from "../frame/problems";
import { useMachine } from "./machine-draft";

type Answer<T> = { ok: true; value: T } | { ok: false; problems: Problem[] };

interface ControllerFacts {
  present: boolean;
  address: string | null;
  virtualMedia: "licensed" | "not licensed" | "unknown";
  mediaBytesPerSecond: number | null;
  loginKept: string | null;
}

const MEDIA = [
  { value: "licensed", text: "licensed" },
  { value: "not licensed", text: "not licensed" },
  { value: "unknown", text: "not known" },
] as const;
const rate = numberField(1e6, "a number of MB/s");

/** What is known of the controller, as the form shows it; `present` is null while nobody has said. */
const knownOf = (controller: Facts["controller"]) => ({
  present: controller?.present ?? null,
  address: controller?.address ?? "",
  virtualMedia: controller?.virtualMedia ?? ("unknown" as const),
  mediaBytesPerSecond: controller?.mediaBytesPerSecond ?? null,
  loginKept: controller?.loginKept ?? "",
});

/** What no tool prints: whether there is a management controller and whether it may map media. */
export function ControllerForm({
  controller,
  save,
}: {
  controller: Facts["controller"];
  save: (values: ControllerFacts) => Promise<Answer<number>>;
}) {
  const router = useRouter();
  const known = knownOf(controller);
  const [typed, setTyped] = useState(known);
  const [problems, setProblems] = useState<Problem[]>([]);
  const { present } = typed;
  return (
    <form
      className="grid items-end gap-4 sm:grid-cols-4"
      onSubmit={async (e) => {
        e.preventDefault();
        if (present === null) return;
        const answer = await save({
          ...{ ...typed, present },
          address: typed.address.trim() || null,
          virtualMedia: present ? typed.virtualMedia : "unknown",
          loginKept: typed.loginKept.trim() || null,
        });
        setProblems(answer.ok ? [] : answer.problems);
        router.refresh();
      }}
    >
      <SelectField
        path="controller.present"
        label="Management controller"
        value={present === null ? "" : present ? "yes" : "no"}
        empty="not known"
        options={[
          { value: "yes", text: "there is one" },
          { value: "no", text: "none" },
        ]}
        onChange={(v) => setTyped({ ...typed, present: v === "" ? null : v === "yes" })}
      />
      {present && <ReachFields typed={typed} set={(part) => setTyped({ ...typed, ...part })} />}
      <button
        type="submit"
        className="btn"
        disabled={present === null || JSON.stringify(typed) === JSON.stringify(known)}
      >
        Keep
      </button>
      <div className="col-span-full">
        <Problems problems={problems} />
      </div>
    </form>
  );
}

type Known = ReturnType<typeof knownOf>;

/** How it is reached, and what it may do. */
function ReachFields({ typed, set }: { typed: Known; set: (part: Partial<Known>) => void }) {
  const field = bound({ document: typed, type: set });
  return (
    <>
      <TextField {...field("address", "Its address")} maxLength={60} />
      <SelectField {...field("virtualMedia", "Virtual media")} options={MEDIA} />
      <ParsedField {...field("mediaBytesPerSecond", "Media was read at, MB/s")} {...rate} />
      <div className="sm:col-span-2">
        <TextField
          {...field("loginKept", "Where its log-in is kept, in words; never a password")}
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
      placeholder="which key opens its boot menu, what is odd about it"
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
        On a live system of this machine, as root where you can:{" "}
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
          Posts back once, within {code.minutes} minutes: <CopyValue value={code.command} />
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
          or let it post back: make a one-time code
        </button>
      )}
      <Problems problems={problems} />
    </div>
  );
}
