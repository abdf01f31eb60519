"use client";

import { useRouter } from "next/navigation";
import { useState } from "react";
import type { Answer } from "@/contract";
import type { Problem } from "@/core/result";
import { useKept } from "../draft/use-kept";
import { Problems } from "../frame/problems";

/** A profile as YAML: typed, pasted or read from a file. What is wrong is told with its line; the text stays. */
export function ProfileImport({
  initial,
  save,
}: {
  initial: string;
  save: (yaml: string) => Promise<Answer<{ key: string; version: string }>>;
}) {
  const router = useRouter();
  const [yaml, setYaml] = useKept("yaml", initial);
  const [problems, setProblems] = useState<Problem[]>([]);
  return (
    <form
      onSubmit={async (e) => {
        e.preventDefault();
        const answer = await save(yaml);
        if (!answer.ok) return setProblems(answer.problems);
        setYaml(initial);
        router.push(`/images/profiles/${answer.value.key}/${answer.value.version}`);
      }}
    >
      <label className="mb-2 inline-block">
        <span className="btn">Open file</span>
        <input
          type="file"
          accept=".yaml,.yml,text/yaml"
          className="sr-only"
          onChange={async (e) => setYaml((await e.target.files?.[0]?.text()) ?? yaml)}
        />
      </label>
      <textarea
        aria-label="Profile as YAML"
        className="w-full border bg-transparent p-2 font-mono text-[0.93rem] border-base-300"
        rows={22}
        spellCheck={false}
        value={yaml}
        onChange={(e) => setYaml(e.target.value)}
      />
      <Problems
        problems={problems}
        title={`Not saved: ${problems.length} ${problems.length === 1 ? "problem" : "problems"}`}
      />
      <button type="submit" className="btn btn-primary mt-2" disabled={yaml.trim() === ""}>
        Check and save this profile
      </button>
    </form>
  );
}
