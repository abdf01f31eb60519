"use client";

import { useRouter } from "next/navigation";
import { useState } from "react";
import type { Answer } from "@/contract";
import type { Problem } from "@/core/result";
import { useKept } from "../draft/use-kept";
import { Problems } from "../frame/problems";

export function NameForm({
  label,
  action,
  target,
  create,
}: {
  label: string;
  action: string;
  target: string;
  create: (name: string) => Promise<Answer<string>>;
}) {
  const router = useRouter();
  const [name, setName] = useKept("site name", "");
  const [problems, setProblems] = useState<Problem[]>([]);
  return (
    <form
      className="flex max-w-md items-end gap-3"
      onSubmit={async (e) => {
        e.preventDefault();
        const answer = await create(name);
        if (!answer.ok) return setProblems(answer.problems);
        setName("");
        router.push(target + answer.value);
      }}
    >
      <label className="flex-1">
        <span className="label">{label}</span>
        <input className="input" value={name} maxLength={80} onChange={(e) => setName(e.target.value)} />
      </label>
      <button type="submit" className="btn" disabled={name.trim() === ""}>
        {action}
      </button>
      <Problems problems={problems} />
    </form>
  );
}
