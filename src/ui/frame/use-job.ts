"use client";

import { useState } from "react";
import type { Job } from "@/core/job";
import { asked } from "./ask";
import { useFeed } from "./feed";

const later = (a: Job | null, b: Job | null): Job | null =>
  a && b && a.id === b.id && a.pulseAt >= b.pulseAt ? a : b;

/**
 * A job as it stands now: how far it is comes with the feed, and that it has begun or is over is looked up. `initial` is
 * what the page was drawn with; a later one from there counts as well.
 */
export function useJob<J extends Job>(initial: J | null): J | null {
  const [heard, setHeard] = useState<Job | null>(null);
  const id = initial?.id;
  const look = async () => {
    const answer = await asked<Job>(`/api/v1/jobs/${id}`, "progress not reported");
    if (answer.ok) setHeard(answer.value);
  };
  useFeed({
    jobs: (jobs) => {
      const own = jobs.find((job) => job.id === id);
      if (own) setHeard(own);
    },
    changes: (changes) => {
      if (id && (changes === null || changes.some((c) => c.kind === "job" && c.id === id))) void look();
    },
  });
  const now = later(heard, initial);
  return initial && now ? { ...initial, ...now } : null;
}
