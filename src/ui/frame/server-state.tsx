"use client";

import { useEffect, useState } from "react";

const EVERY = 5000;
/** A page that waits longer than this without a word looks as if nothing had been pressed. */
const PATIENCE = 3000;

/** Null while the server and its database answer; else what is the matter, in words. */
export async function askHealth(): Promise<string | null> {
  const response = await fetch("/api/health", { signal: AbortSignal.timeout(PATIENCE) }).catch(() => null);
  if (response?.ok) return null;
  const body = (await response?.json().catch(() => null)) as { problems?: { message: string }[] } | null;
  return body?.problems?.[0]?.message ?? "The server does not answer.";
}

/** Says on every page that the server is away, since when, and when it is back: a page alone cannot be told from a dead one. */
export function ServerState() {
  const [trouble, setTrouble] = useState<{ why: string; since: string } | null>(null);
  useEffect(() => {
    let over = false;
    const look = async () => {
      if (document.hidden) return;
      const why = await askHealth();
      if (over) return;
      setTrouble((old) =>
        why === null ? null : { why, since: old?.since ?? new Date().toTimeString().slice(0, 5) },
      );
    };
    const timer = setInterval(() => void look(), EVERY);
    return () => {
      over = true;
      clearInterval(timer);
    };
  }, []);
  const [lost, setLost] = useState(false);
  useEffect(() => {
    // A change that was sent and got no answer at all: whatever form it came from, it is said here.
    const tell = () => setLost(true);
    addEventListener("unhandledrejection", tell);
    return () => removeEventListener("unhandledrejection", tell);
  }, []);
  if (!trouble && !lost) return null;
  return (
    <p
      role="alert"
      className="sticky top-0 z-20 border-b-2 bg-base-200 px-4 py-1.5"
      style={{ borderColor: "var(--color-warning)" }}
    >
      {trouble ? (
        <>
          <span className="font-semibold">{trouble.why}</span> Since {trouble.since}; this page may be old,
          and what you change is not on the server yet. Leave it open.
        </>
      ) : (
        <>
          <span className="font-semibold">The last change got no answer from the server</span>, so it may not
          be saved. What you typed is still here; press its button again.{" "}
          <button type="button" className="link-quiet" onClick={() => setLost(false)}>
            Seen
          </button>
        </>
      )}
    </p>
  );
}
