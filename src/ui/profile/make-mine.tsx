"use client";

import { useRouter } from "next/navigation";
import { useState } from "react";
import type { Answer } from "@/contract";
import type { OwnFamily } from "@/core/image";
import type { Problem } from "@/core/result";
import { useKept } from "../draft/use-kept";
import { TextField } from "../fields/fields";
import { Problems } from "../frame/problems";

export type MakeMine = (own: OwnFamily) => Promise<Answer<{ key: string; version: string }>>;

/** A family of one's own from this one: its name, its version, and by which words its files are known. */
export function MakeItMine({ begun, make }: { begun: OwnFamily; make: MakeMine }) {
  const router = useRouter();
  const [name, setName] = useKept("own name", begun.name);
  const [version, setVersion] = useKept("own version", begun.version);
  const [words, setWords] = useKept("own words", begun.recognise.join(" "));
  const [problems, setProblems] = useState<Problem[]>([]);
  const go = async () => {
    const answer = await make({ name, version, recognise: words.split(/\s+/).filter(Boolean) });
    if (!answer.ok) return setProblems(answer.problems);
    setName(begun.name);
    setVersion(begun.version);
    setWords(begun.recognise.join(" "));
    router.push(`/images/profiles/${answer.value.key}/${answer.value.version}?form=open`);
  };
  return (
    <form
      aria-label="Duplicate and edit"
      className="grid max-w-3xl items-end gap-x-6 gap-y-3 sm:grid-cols-[1fr_8rem_1fr_auto]"
      onSubmit={(e) => {
        e.preventDefault();
        void go();
      }}
    >
      <TextField
        path="own.name"
        label="Name of your OS family"
        value={name}
        onChange={setName}
        maxLength={80}
      />
      <TextField path="own.version" label="Version" value={version} onChange={setVersion} maxLength={40} />
      <TextField
        path="own.recognise"
        label="Words in its file names"
        value={words}
        onChange={setWords}
        placeholder="Separate words with spaces."
      />
      <button type="submit" className="btn btn-primary" disabled={name.trim() === ""}>
        Duplicate and edit
      </button>
      <div className="col-span-full">
        <Problems problems={problems} title="Not created" />
        <p className="quiet">
          Screens, requirements and rules are copied; change what differs. Not copied: end of support,
          supported upgrades, and how a running system is recognised.
        </p>
      </div>
    </form>
  );
}
