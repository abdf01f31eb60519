"use client";

import Link from "next/link";
import { usePathname } from "next/navigation";
import { useCallback, useEffect, useRef, useState } from "react";
import { announce } from "./announce";
import { useFeed } from "./feed";

interface Call {
  id: string;
  machine: string;
  hands: { at: string; what: string; late: boolean } | null;
  waits: boolean;
}

/** How often the times of the waits are compared with the clock. */
const EVERY = 5000;
/** A tab out of sight does not listen, and must be heard all the same. */
const OUT_OF_SIGHT = 60_000;
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
  /** Running builds as they were told last, and what the server's clock is ahead. */
  const known = useRef<{ runs: readonly Call[]; ahead: number }>({ runs: [], ahead: 0 });
  const path = usePathname();

  const compare = useCallback(() => {
    const { runs, ahead } = known.current;
    const ended = due(runs, new Date(Date.now() + ahead).toISOString());
    for (const call of ended) {
      const once = `${call.id} ${call.hands?.what}`;
      if (!told.current.has(once)) announce(`${call.machine}: action needed`, call.hands?.what ?? "");
      told.current.add(once);
    }
    setCalls((old) => (old.length === 0 && ended.length === 0 ? old : ended));
  }, []);

  const ask = useCallback(async () => {
    const response = await fetch("/api/v1/hands").catch(() => null);
    if (!response?.ok) return;
    const { now, runs } = (await response.json()) as { now: string; runs: Call[] };
    known.current = { runs, ahead: Date.parse(now) - Date.now() };
    compare();
  }, [compare]);

  useFeed({
    changes: (changes) => {
      if (changes === null || changes.some((c) => c.kind === "run")) void ask();
    },
  });

  useEffect(() => {
    const first = setTimeout(() => void ask(), 0);
    const clock = setInterval(compare, EVERY);
    const hidden = setInterval(() => document.hidden && void ask(), OUT_OF_SIGHT);
    return () => {
      clearTimeout(first);
      clearInterval(clock);
      clearInterval(hidden);
    };
  }, [ask, compare]);

  useEffect(() => {
    const plain = document.title.startsWith(MARK)
      ? document.title.slice(MARK.length).replace(/^.* – (?=Today – )/, "")
      : document.title;
    // Tabs are told apart by what they show; the machine is named where it leads to it.
    const who = path === "/" ? `${calls.map((c) => c.machine).join(", ")} – ` : "";
    document.title = calls.length > 0 ? `${MARK}${who}${plain}` : plain;
  }, [calls, path]);

  const [first] = calls;
  if (!first) return null;
  return (
    <span role="status" className="order-last basis-full pb-1 md:order-none md:ml-auto md:basis-auto">
      <Link
        href={calls.length === 1 ? `/runs/${first.id}` : "/"}
        className="px-1.5 text-[0.93rem] font-semibold"
        style={{ background: "var(--color-error)", color: "var(--color-error-content)" }}
        title={calls.map((c) => `${c.machine}: ${c.hands?.what}`).join("; ")}
      >
        Action needed: {calls.map((c) => c.machine).join(", ")}
      </Link>
    </span>
  );
}
