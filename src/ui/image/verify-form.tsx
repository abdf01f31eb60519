"use client";

import { useRouter } from "next/navigation";
import { useState } from "react";
import type { Answer } from "@/contract";
import type { Image } from "@/core/image";
import type { Problem } from "@/core/result";
import { useKept } from "../draft/use-kept";
import { CopyValue } from "../frame/copy-value";
import { Problems } from "../frame/problems";
import { Day } from "../frame/person";

const VERDICTS = {
  matches: ["The file matches the published checksum.", "var(--color-success)"],
  differs: ["The file does NOT match the published checksum. Do not install from it.", "var(--color-error)"],
  "not computed": ["No checksum has been computed from the file yet.", "var(--color-warning)"],
  "not published": ["No published checksum to compare with.", "var(--color-warning)"],
  "other algorithm": ["Not compared: the algorithms differ.", "var(--color-warning)"],
} as const;

/** Published against computed: paste the line that the checksum tool printed over the very file. */
export function VerifyForm({
  image,
  verdict,
  save,
}: {
  image: Image;
  verdict: keyof typeof VERDICTS;
  save: (line: string) => Promise<Answer<number>>;
}) {
  const router = useRouter();
  const [line, setLine] = useKept("checksum line", "");
  const [problems, setProblems] = useState<Problem[]>([]);
  const [words, colour] = VERDICTS[verdict];
  return (
    <div>
      <p className="text-[1.07rem] font-semibold" style={{ color: colour }}>
        {words}
      </p>
      {image.computed && (
        <p className="quiet">
          computed <Day at={image.computed.at} /> by {image.computed.by}:{" "}
          <span className="value [overflow-wrap:anywhere]">{image.computed.checksum.value}</span>
        </p>
      )}
      {image.published && (
        <form
          className="mt-3"
          onSubmit={async (e) => {
            e.preventDefault();
            const answer = await save(line);
            setProblems(answer.ok ? [] : answer.problems);
            if (answer.ok) {
              setLine("");
              router.refresh();
            }
          }}
        >
          <p>
            Run{" "}
            <CopyValue
              value={`${image.published.algorithm}sum '${(image.fileName || "image.iso").replaceAll("'", "'\\''")}'`}
            />{" "}
            in the folder of the file and paste its output.
          </p>
          <input
            aria-label="Output of the checksum tool"
            className="input mt-2"
            value={line}
            maxLength={400}
            autoComplete="off"
            spellCheck={false}
            onChange={(e) => setLine(e.target.value)}
          />
          <Problems problems={problems} />
          <button type="submit" className="btn mt-2" disabled={line.trim() === ""}>
            Compare
          </button>
        </form>
      )}
    </div>
  );
}
