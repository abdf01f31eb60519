"use client";

import { CopyText } from "../frame/copy-text";

/** Copies the file as it is fetched: with the hashes that the page does not show. */
export const CopyAnswers = ({ build }: { build: string }) => (
  <CopyText
    text={async () => {
      const answer = await fetch(`/api/v1/builds/${build}/answers`);
      if (!answer.ok) throw new Error(await answer.text());
      return answer.text();
    }}
  />
);
