"use client";

import Link from "next/link";
import { usePathname } from "next/navigation";
import { useEffect, useRef, useState } from "react";
import { announce } from "./announce";

interface Call {
  id: string;
  machine: string;
  hands: { at: string; what: string; late: boolean } | null;
  waits: boolean;
}

const EVERY = 15_000;
const MARK = "\u25b2 ";

/** Waits that have come to their likely end and that nobody has answered. */
const due = (runs: readonly Call[], now: string): Call[] =>
  runs.filter((r) => r.waits && r.hands !== null && r.hands.at <= now);

/**
 * A wait that has ended calls for a person on every page, also while another tab is in front: in the title of the page at
 * once, by sound and by the browser's own notification where they are wanted.
 */
export function Alarm() {
  const [calls, setCalls] = useState<Call[]>([]);
  const told = useRef(new Set<string>());
  const path = usePathname();

  useEffect(() => {
    let over = false;
    const ask = async () => {
      const response = await fetch("/api/v1/hands").catch(() => null);
      if (over || !response?.ok) return;
      const { now, runs } = (await response.json()) as { now: string; runs: Call[] };
      const ended = due(runs, now);
      for (const call of ended) {
        const once = `${call.id} ${call.hands?.what}`;
        if (!told.current.has(once)) announce(`${call.machine}: hands are needed`, call.hands?.what ?? "");
        told.current.add(once);
      }
      setCalls(ended);
    };
    void ask();
    const timer = setInterval(() => void ask(), EVERY);
    return () => {
      over = true;
      clearInterval(timer);
    };
  }, []);

  useEffect(() => {
    const plain = document.title.startsWith(MARK) ? document.title.replace(/^.*? – /, "") : document.title;
    document.title = calls.length > 0 ? `${MARK}${calls.map((c) => c.machine).join(", ")} – ${plain}` : plain;
  }, [calls, path]);

  const [first] = calls;
  if (!first) return null;
  return (
    <span role="status">
      <Link
        href={calls.length === 1 ? `/runs/${first.id}` : "/"}
        className="px-1.5 text-[0.93rem] font-semibold"
        style={{ background: "var(--color-error)", color: "var(--color-error-content)" }}
        title={calls.map((c) => `${c.machine}: ${c.hands?.what}`).join("; ")}
      >
        hands: {calls.map((c) => c.machine).join(", ")}
      </Link>
    </span>
  );
}
