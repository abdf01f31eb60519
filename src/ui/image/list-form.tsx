"use client";

import { useRouter } from "next/navigation";
import { useState } from "react";
import type { Answer } from "@/contract";
import { term } from "@/core/text";
import type { Problem } from "@/core/result";
import { useKept } from "../draft/use-kept";
import { Problems } from "../frame/problems";

type Taken = { by: "name" | "value" | "alone"; algorithm: string; signed: boolean };
const WORDS: Record<Taken["by"], string> = {
  name: "by file name",
  value: "by its value, under another name",
  alone: "as the only entry",
};

/** A published list of checksums, pasted or dropped: the line for this image becomes its published checksum. */
export function ChecksumListForm({ take }: { take: (text: string, from: string) => Promise<Answer<Taken>> }) {
  const router = useRouter();
  const [text, setText] = useKept("list", "");
  const [from, setFrom] = useKept("list from", "");
  const [said, setSaid] = useState("");
  const [problems, setProblems] = useState<Problem[]>([]);
  return (
    <form
      className="mt-4"
      onSubmit={async (e) => {
        e.preventDefault();
        const answer = await take(text, from);
        setProblems(answer.ok ? [] : answer.problems);
        if (!answer.ok) return setSaid("");
        const { by, algorithm, signed } = answer.value;
        setSaid(
          `Found ${WORDS[by]}: ${term(algorithm)}${algorithm === "md5" || algorithm === "sha1" ? ", which can be forged" : ""}.${signed ? " The list has a signature; Derrick does not check signatures." : ""}`,
        );
        setText("");
        router.refresh();
      }}
    >
      <label>
        <span className="label">Or paste the published checksum list</span>
        <textarea
          className="textarea text-[0.93rem]"
          rows={2}
          spellCheck={false}
          value={text}
          maxLength={400_000}
          placeholder="CHECKSUM  file.iso"
          onChange={(e) => setText(e.target.value)}
          onDrop={(e) => {
            const file = e.dataTransfer.files[0];
            if (!file) return;
            e.preventDefault();
            setFrom(file.name);
            void file.slice(0, 400_000).text().then(setText);
          }}
        />
      </label>
      <Problems problems={problems} />
      {said && (
        <p role="status" className="quiet">
          {said}
        </p>
      )}
      {text.trim() !== "" && (
        <button type="submit" className="btn mt-2">
          Find this image
        </button>
      )}
    </form>
  );
}
