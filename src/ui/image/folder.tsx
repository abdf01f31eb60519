"use client";

import Link from "next/link";
import { useRouter } from "next/navigation";
import { startTransition, useRef, useState } from "react";
import type { Done } from "@/contract";
import { term } from "@/core/text";
import { isOn, progressOf, type Job } from "@/core/job";
import type { Problem } from "@/core/result";
import { asked } from "../frame/ask";
import { useFeed } from "../frame/feed";
import { Problems } from "../frame/problems";
import { Progress } from "./progress";
import { Size } from "../frame/person";
import { useJob } from "../frame/use-job";

export interface FolderLine {
  name: string;
  sizeBytes: number;
  image: { id: string; name: string } | null;
  job: (Job & { algorithm: string }) | null;
}
/** Files of the server's image folder: put on the shelf from there, their checksums computed by the server. */
export function ImageFolder({
  initial,
  shelve,
  compute,
  stop,
}: {
  initial: FolderLine[];
  shelve: (name: string) => Promise<Done>;
  compute: (id: string, name: string) => Promise<Done>;
  stop: (name: string) => Promise<unknown>;
}) {
  const router = useRouter();
  const [files, setFiles] = useState(initial);
  const [problems, setProblems] = useState<Problem[]>([]);
  const newest = useRef(0);
  const reload = async () => {
    const own = (newest.current += 1);
    const answer = await asked<FolderLine[]>("/api/v1/image-folder", "the folder could not be read");
    // An answer that comes after a later one is older than what stands there.
    if (own !== newest.current) return;
    if (!answer.ok) return setProblems(answer.problems);
    // The list and the shelf above it change in one moment: a page that moves twice takes a click away from its button.
    startTransition(() => {
      setFiles(answer.value);
      router.refresh();
    });
  };
  // Others put files on the shelf and compute, too.
  useFeed({
    changes: (changes) => {
      if (changes !== null && !changes.some((c) => c.kind === "job" || c.kind === "image")) return;
      void reload();
    },
  });
  const ask = async (work: Promise<Done>) => {
    const answer = await work;
    setProblems(answer.ok ? [] : answer.problems);
    await reload();
  };
  if (files.length === 0) return <p className="quiet">The folder contains no files.</p>;
  return (
    <>
      <table className="table" aria-label="Files of the image folder">
        <thead>
          <tr>
            <th>File</th>
            <th>Size</th>
            <th>In the library</th>
            <th className="w-[40%]"></th>
          </tr>
        </thead>
        <tbody>
          {files.map((f) => (
            <tr key={f.name} className="[&>td]:align-middle">
              <td className="value [overflow-wrap:anywhere]">{f.name}</td>
              <td className="value whitespace-nowrap">
                <Size bytes={f.sizeBytes} />
              </td>
              <td>
                {f.image ? (
                  <Link className="link" href={`/images/${f.image.id}`}>
                    {f.image.name}
                  </Link>
                ) : (
                  <span className="quiet">no</span>
                )}
              </td>
              <td>
                {/* As high as what is under way, so that no row moves when the one before it begins or ends. */}
                <div className="flex min-h-11 flex-col justify-center">
                  <Work
                    file={f}
                    stop={() => void stop(f.name).then(reload)}
                    compute={(id) => void ask(compute(id, f.name))}
                    shelve={() => void ask(shelve(f.name))}
                  />
                </div>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <Problems problems={problems} />
    </>
  );
}

/** What is being done with a file, or can be. */
function Work({
  file: f,
  stop,
  compute,
  shelve,
}: {
  file: FolderLine;
  stop: () => void;
  /** Of the image that the file is on the shelf as. */
  compute: (imageId: string) => void;
  shelve: () => void;
}) {
  const job = useJob(f.job);
  if (job?.state === "working")
    return (
      <Progress
        {...{ algorithm: job.algorithm, fileName: f.name, done: job.done, size: job.size }}
        rate={progressOf(job).rate ?? 0}
        onStop={stop}
      />
    );
  if (job && isOn(job))
    return (
      <span className="flex flex-wrap items-baseline gap-3" role="status">
        {term(job.algorithm)}: waiting for the files before it
        <button type="button" className="link" onClick={stop}>
          Stop
        </button>
      </span>
    );
  return (
    <span className="flex flex-wrap items-baseline gap-3">
      {f.image ? (
        <button type="button" className="link" onClick={() => compute(f.image?.id ?? "")}>
          {job?.state === "interrupted" ? "Restart checksum" : "Compute checksum"}
        </button>
      ) : (
        <button type="button" className="link" onClick={shelve}>
          Add to library
        </button>
      )}
      {job && (
        <span className={job.state === "done" || job.state === "stopped" ? "quiet" : ""} role="status">
          {endWords(job)}
        </span>
      )}
    </span>
  );
}

/** How the last computation over a file ended. */
function endWords(job: Job & { algorithm: string }): string {
  if (job.state === "failed") return job.problem ?? `${term(job.algorithm)} failed`;
  if (job.state !== "interrupted")
    return `${term(job.algorithm)} ${job.state === "done" ? "computed" : job.state}`;
  return `${term(job.algorithm)} interrupted at ${progressOf(job).percent} %: the server stopped, and nothing was saved.`;
}
