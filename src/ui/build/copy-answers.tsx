"use client";

import { CopyText } from "../frame/copy-text";

/** Copies a file as it is fetched: with the hashes that the page does not show. */
export const CopyAnswers = ({ url }: { url: string }) => (
  <CopyText
    text={async () => {
      const answer = await fetch(url);
      if (!answer.ok) throw new Error(await answer.text());
      return answer.text();
    }}
  />
);
