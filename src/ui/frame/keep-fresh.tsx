"use client";

import { useRouter } from "next/navigation";
import { useEffect, useRef } from "react";
import { useFeed } from "./feed";

/** What comes together is looked at together. */
const TOGETHER = 300;
const MINUTE = 60_000;

/**
 * Asks the server again when something was written, and once a minute where the page shows the time (`clock`): what it
 * says is then older than it looks.
 */
export function KeepFresh({ clock }: { clock: boolean }) {
  const router = useRouter();
  const soon = useRef<ReturnType<typeof setTimeout> | null>(null);
  useFeed({
    changes: () => {
      if (soon.current) clearTimeout(soon.current);
      soon.current = setTimeout(() => router.refresh(), TOGETHER);
    },
  });
  useEffect(() => {
    if (!clock) return;
    const timer = setInterval(() => !document.hidden && router.refresh(), MINUTE);
    return () => clearInterval(timer);
  }, [router, clock]);
  return null;
}
