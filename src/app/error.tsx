"use client";

import { useEffect, useState } from "react";
import { Page } from "@/ui/frame/page";
import { askHealth } from "@/ui/frame/health";

/** What failed on the server is told in words when it is the database's; Next keeps other reasons in the server's log. */
export default function Failed({ error, reset }: { error: Error & { digest?: string }; reset: () => void }) {
  const [why, setWhy] = useState<string | null>(null);
  useEffect(() => {
    let over = false;
    void askHealth().then((words) => !over && setWhy(words));
    return () => {
      over = true;
    };
  }, [error]);
  return (
    <Page
      title="This sheet could not be drawn"
      lead={
        why ??
        `Something failed on the server${error.digest ? ` (mark ${error.digest} in its log)` : ""}. Nothing that was saved is lost.`
      }
    >
      <button type="button" className="btn" onClick={reset}>
        Try again
      </button>
    </Page>
  );
}
