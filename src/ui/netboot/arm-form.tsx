"use client";

import { useRouter } from "next/navigation";
import { useState } from "react";
import type { Done } from "@/contract";
import { Problems } from "../frame/problems";
import { TypedProof } from "../fields/typed-proof";
import { CodeChoice } from "./code-choice";
import { MinutesField } from "./minutes-field";

/** Asks for the end of the serial as it stands on the machine, and for how long the machine may ask. */
export function ArmForm({
  machine,
  tail,
  secrets,
  arm,
}: {
  machine: string;
  tail: number;
  secrets: readonly string[];
  arm: (asked: { typed: string; minutes: number; asksCode: boolean }) => Promise<Done>;
}) {
  const router = useRouter();
  const [typed, setTyped] = useState("");
  const [minutes, setMinutes] = useState(60);
  const [asksCode, setAsksCode] = useState(secrets.length > 0);
  const [busy, setBusy] = useState(false);
  const [problems, setProblems] = useState<readonly { message: string }[]>([]);
  const send = async (): Promise<void> => {
    setBusy(true);
    const answer = await arm({ typed, minutes, asksCode });
    setBusy(false);
    setTyped("");
    setProblems(answer.ok ? [] : (answer.problems ?? []));
    if (answer.ok) router.push("/builds/netboot");
  };
  return (
    <form
      className="max-w-xl border-2 p-4 border-error"
      onSubmit={(e) => {
        e.preventDefault();
        if (typed.trim() !== "" && !busy) void send();
      }}
    >
      <Problems problems={problems} title="Not armed" />
      <label className="block">
        <span>
          Last {tail} characters of the serial number, read on {machine} itself
        </span>
        <TypedProof
          className="input mt-1 text-[1.3rem] tracking-wider uppercase"
          value={typed}
          onChange={setTyped}
          label="End of the serial number"
        />
      </label>
      <label className="mt-3 block">
        <span>Valid for</span>
        <MinutesField value={minutes} onChange={setMinutes} />
      </label>
      <CodeChoice {...{ asksCode, secrets }} choose={setAsksCode} />
      <button
        type="submit"
        className="btn btn-primary mt-4 w-full justify-center py-2"
        disabled={busy || typed.trim() === ""}
      >
        Arm {machine} for one installation
      </button>
    </form>
  );
}
