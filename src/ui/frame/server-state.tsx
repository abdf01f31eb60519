"use client";

import { useEffect, useState } from "react";
import { useFeed } from "./feed";

/** Says on every page that the server is away, since when, and when it is back: a page alone cannot be told from a dead one. */
export function ServerState() {
  const [trouble, setTrouble] = useState<{ why: string; since: string } | null>(null);
  useFeed({
    health: (why) =>
      setTrouble((old) =>
        why === null ? null : { why, since: old?.since ?? new Date().toTimeString().slice(0, 5) },
      ),
  });
  const [lost, setLost] = useState(false);
  useEffect(() => {
    // A change that was sent and got no answer at all: whatever form it came from, it is said here.
    const tell = () => setLost(true);
    addEventListener("unhandledrejection", tell);
    return () => removeEventListener("unhandledrejection", tell);
  }, []);
  if (!trouble && !lost) return null;
  return (
    <p role="alert" className="sticky top-0 z-20 border-b-2 bg-base-200 px-4 py-1.5 border-warning">
      {trouble ? (
        <>
          <span className="font-semibold">{trouble.why}</span> (since {trouble.since}). Data may be outdated;
          keep this page open until your changes are saved.
        </>
      ) : (
        <>
          <span className="font-semibold">The server did not respond to the last change</span>, so it may not
          be saved. Your entry is still here: press its button again.{" "}
          <button type="button" className="link" onClick={() => setLost(false)}>
            OK
          </button>
        </>
      )}
    </p>
  );
}
