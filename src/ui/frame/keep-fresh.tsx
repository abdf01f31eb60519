"use client";

import { useRouter } from "next/navigation";
import { useEffect, useRef } from "react";
import { useFeed } from "./feed";

/** What comes together is looked at together. */
const TOGETHER = 300;
/** How old what a page says of the time may be: while something runs, and otherwise (days that are due). */
const RUNNING = 60_000;
const QUIET = 600_000;

/**
 * Asks the server again when something was written, and with the clock, since a page that stands open for a night still
 * says what was due the day before: each minute while something runs (`running`), and now and then otherwise.
 */
export function KeepFresh({ running }: { running: boolean }) {
  const router = useRouter();
  const soon = useRef<ReturnType<typeof setTimeout> | null>(null);
  useFeed({
    changes: () => {
      if (soon.current) clearTimeout(soon.current);
      soon.current = setTimeout(() => router.refresh(), TOGETHER);
    },
  });
  useEffect(() => {
    const timer = setInterval(() => !document.hidden && router.refresh(), running ? RUNNING : QUIET);
    return () => clearInterval(timer);
  }, [router, running]);
  return null;
}
