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
      title="This page could not be displayed"
      lead={
        why ??
        `An error occurred on the server${error.digest ? ` (reference ${error.digest} in its log)` : ""}. Saved data is not affected.`
      }
    >
      <button type="button" className="btn" onClick={reset}>
        Try again
      </button>
    </Page>
  );
}
