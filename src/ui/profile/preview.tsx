"use client";

import { useEffect, useState } from "react";
import { useFormContext, useWatch } from "react-hook-form";
import type { ProfilePreview as Preview, Refusal } from "@/contract";
import type { Profile } from "@/core/image";
import { formatDuration } from "@/core/units";
import { tidy } from "./tidy";

export type PreviewOf = (fields: object) => Promise<Preview | Refusal>;

/** After this pause in typing the steps are made anew. */
const PAUSE = 350;

/** What the profile makes while it is written: its steps on a plain machine, and what a sheet of it will lack. */
export function ProfilePreview({ previewOf }: { previewOf: PreviewOf }) {
  const preview = usePreview(previewOf);
  if (!preview) return <p className="quiet">computing steps…</p>;
  const { steps, lacks, problems } = preview;
  const total = steps.reduce((sum, s) => sum + s.likelySeconds, 0);
  return (
    <div aria-live="polite">
      {problems.length > 0 && (
        <div role="alert" className="mb-3 border-l-4 pl-3 border-error">
          <p className="font-semibold">
            {problems.length === 1 ? "One field is" : `${problems.length} fields are`} invalid. A build sheet
            would miss:
          </p>
          <ul className="list-disc pl-5">
            {problems.map((p) => (
              <li key={p.message}>
                {p.lacks ?? "the whole profile"} <span className="quiet">({p.message})</span>
              </li>
            ))}
          </ul>
        </div>
      )}
      {lacks.length > 0 && (
        <div className="mb-3">
          <p className="label">Missing on a build sheet, because the profile does not define it</p>
          <ul className="list-disc pl-5">
            {lacks.map((l) => (
              <li key={l}>{l}</li>
            ))}
          </ul>
        </div>
      )}
      {steps.length > 0 && (
        <>
          <p className="label">
            {steps.length} steps on a standard machine, about {formatDuration(total)}
          </p>
          <ol aria-label="Resulting steps">
            {steps.map((s, i) => (
              <li
                key={s.id}
                className="grid grid-cols-[2rem_1.2rem_minmax(0,1fr)_auto] gap-2 border-b py-0.5 border-base-300"
              >
                <span className="value quiet text-right">{i + 1}</span>
                <span className="value font-semibold">{s.zone}</span>
                <span>
                  {s.isGuard && <span className="label mr-1 border px-1">guard</span>}
                  {s.title}
                </span>
                <span className="value quiet">{formatDuration(s.likelySeconds)}</span>
              </li>
            ))}
          </ol>
        </>
      )}
    </div>
  );
}

/** The newest preview that was answered; one that comes late is passed over. */
function usePreview(previewOf: PreviewOf): Preview | null {
  const { control } = useFormContext<Profile>();
  const values = useWatch({ control });
  const [preview, setPreview] = useState<Preview | null>(null);
  const text = JSON.stringify(tidy(values));
  useEffect(() => {
    let isWanted = true;
    const timer = setTimeout(() => {
      void previewOf(JSON.parse(text) as object)
        .then((answer) => isWanted && !("ok" in answer) && setPreview(answer))
        .catch(() => undefined);
    }, PAUSE);
    return () => {
      isWanted = false;
      clearTimeout(timer);
    };
  }, [text, previewOf]);
  return preview;
}
