"use client";

import { Page } from "@/ui/frame/page";

export default function Failed({ error, reset }: { error: Error & { digest?: string }; reset: () => void }) {
  return (
    <Page
      title="This sheet could not be drawn"
      lead={`Something failed on the server${error.digest ? ` (mark ${error.digest} in its log)` : ""}. Nothing that was saved is lost.`}
    >
      <button type="button" className="stamp" onClick={reset}>
        Try again
      </button>
    </Page>
  );
}
