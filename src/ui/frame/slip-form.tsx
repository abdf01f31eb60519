"use client";

import { useRouter } from "next/navigation";
import { useState, type ReactNode } from "react";
import type { Done } from "@/contract";
import type { Problem } from "@/core/result";
import { Slip } from "./dialog";
import { Problems } from "./problems";

/** A slip with something to send: problems are shown on it, and it closes when the answer is good. */
export function SlipForm({
  open,
  onClose,
  title,
  button,
  send,
  disabled = false,
  children,
}: {
  open: boolean;
  onClose: () => void;
  title: string;
  button: string;
  send: () => Promise<Done>;
  disabled?: boolean;
  children: ReactNode;
}) {
  const router = useRouter();
  const [problems, setProblems] = useState<Problem[]>([]);
  return (
    <Slip open={open} onClose={onClose} title={title}>
      <form
        onSubmit={async (e) => {
          e.preventDefault();
          const answer = await send();
          setProblems(answer.ok ? [] : answer.problems);
          // Where somebody saved in between, what stands now is shown beside what was typed.
          router.refresh();
          if (answer.ok) onClose();
        }}
      >
        {children}
        <Problems problems={problems} />
        <button type="submit" className="btn btn-primary mt-4" disabled={disabled}>
          {button}
        </button>
      </form>
    </Slip>
  );
}
