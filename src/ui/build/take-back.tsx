"use client";

import { useRouter } from "next/navigation";
import { useState } from "react";
import type { Done } from "@/contract";
import type { Problem } from "@/core/result";
import { Problems } from "../frame/problems";

export function TakeBack({ action }: { action: () => Promise<Done> }) {
  const router = useRouter();
  const [problems, setProblems] = useState<Problem[]>([]);
  return (
    <div>
      <button
        type="button"
        className="link"
        onClick={async () => {
          const answer = await action();
          setProblems(answer.ok ? [] : answer.problems);
          if (answer.ok) router.refresh();
        }}
      >
        Undo
      </button>
      <Problems problems={problems} title="Not undone" />
    </div>
  );
}
