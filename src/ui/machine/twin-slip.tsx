"use client";

import { useRouter } from "next/navigation";
import { useState } from "react";
import type { Answer } from "@/contract";
import type { Problem } from "@/core/result";
import { useKept } from "../draft/use-kept";
import { Slip } from "../frame/dialog";
import { Problems } from "../frame/problems";

/** A sheet for a twin: place, role, keys and bays are taken along, facts are not. */
export function TwinSlip({ make }: { make: (name: string) => Promise<Answer<string>> }) {
  const router = useRouter();
  const [open, setOpen] = useState(false);
  const [name, setName] = useKept("twin", "");
  const [problems, setProblems] = useState<Problem[]>([]);
  return (
    <>
      <button type="button" className="btn" onClick={() => setOpen(true)}>
        Duplicate
      </button>
      <Slip open={open} onClose={() => setOpen(false)} title="Duplicate this machine">
        <form
          onSubmit={async (e) => {
            e.preventDefault();
            const answer = await make(name);
            if (!answer.ok) return setProblems(answer.problems);
            setName("");
            router.push(`/machines/${answer.value}`);
          }}
        >
          <p className="mb-3">
            Location, role, boot keys, bays and delivery note are copied. Hardware data is not: collect it
            from the new machine.
          </p>
          <label>
            <span className="label">Machine name, as on its front</span>
            <input
              className="input"
              autoFocus
              value={name}
              maxLength={80}
              onChange={(e) => setName(e.target.value)}
            />
          </label>
          <Problems problems={problems} />
          <button type="submit" className="btn btn-primary mt-4" disabled={name.trim() === ""}>
            Duplicate
          </button>
        </form>
      </Slip>
    </>
  );
}
