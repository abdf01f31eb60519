"use client";

import { useState } from "react";
import { isOn, progressOf, type Job } from "@/core/job";
import type { Problem } from "@/core/result";
import { asked, sending } from "../frame/ask";
import { useFeed } from "../frame/feed";
import { Problems } from "../frame/problems";

/** Large outputs that the server reads at this moment, whoever brought them: how far each is, and how to stop it. */
export function ReadingsNow() {
  const [jobs, setJobs] = useState<readonly Job[]>([]);
  const [problems, setProblems] = useState<Problem[]>([]);
  const forget = (over: (id: string) => boolean) => setJobs((known) => known.filter(({ id }) => !over(id)));
  useFeed({
    jobs: (all) => setJobs(all.filter((job) => job.kind === "reading" && isOn(job))),
    changes: (changes) =>
      forget((id) => changes === null || changes.some((c) => c.kind === "job" && c.id === id && isEnd(c))),
  });
  const stop = async (id: string) => {
    const answer = await asked<Job>(`/api/v1/jobs/${id}`, "not stopped", sending({ stop: true }));
    setProblems(answer.ok ? [] : answer.problems);
    if (answer.ok) forget((own) => own === id);
  };
  const lines = jobs.map((job) => (
    <p key={job.id} className="flex flex-wrap items-baseline gap-3" role="status">
      <span>
        Importing {job.about} for {job.by}: <span className="value">{progressOf(job).percent} %</span>
        {job.state === "waiting" && " (queued)"}
      </span>
      <button type="button" className="link" onClick={() => void stop(job.id)}>
        Stop
      </button>
    </p>
  ));
  return (
    <>
      {lines}
      <Problems problems={problems} />
    </>
  );
}

/** The number of a job's change says how far it has come: asked for, begun, over. */
const isEnd = ({ version }: { version: number }): boolean => version === 3;
