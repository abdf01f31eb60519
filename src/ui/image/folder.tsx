"use client";

import Link from "next/link";
import { useRouter } from "next/navigation";
import { useEffect, useState } from "react";
import type { Problem } from "@/core/result";
import { asked } from "../frame/ask";
import { Problems } from "../frame/problems";
import { Progress } from "./progress";
import { Size } from "../frame/person";

export interface FolderLine {
  name: string;
  sizeBytes: number;
  image: { id: string; name: string } | null;
  job: {
    algorithm: string;
    state: "waiting" | "computing" | "done" | "stopped" | "failed";
    done: number;
    size: number;
    rate: number;
    problem: string | null;
  } | null;
}
type Plain = { ok: true } | { ok: false; problems: Problem[] };

const EVERY_MS = 1000;

const isOn = (job: FolderLine["job"]): boolean => job?.state === "computing" || job?.state === "waiting";

/** Files of the server's image folder: put on the shelf from there, their checksums computed by the server. */
export function ImageFolder({
  initial,
  shelve,
  compute,
  stop,
}: {
  initial: FolderLine[];
  shelve: (name: string) => Promise<Plain>;
  compute: (id: string, name: string) => Promise<Plain>;
  stop: (name: string) => Promise<void>;
}) {
  const router = useRouter();
  const [files, setFiles] = useState(initial);
  const [problems, setProblems] = useState<Problem[]>([]);
  const running = files.some((f) => isOn(f.job));
  const reload = async () => {
    const answer = await asked<FolderLine[]>("/api/v1/image-folder", "the folder was not read");
    if (answer.ok) setFiles(answer.value);
    else setProblems(answer.problems);
    return answer.ok && answer.value.some((f) => isOn(f.job));
  };
  useEffect(() => {
    if (!running) return;
    const timer = setInterval(() => {
      void reload().then((more) => {
        if (!more) router.refresh();
      });
    }, EVERY_MS);
    return () => clearInterval(timer);
  }, [running, router]);
  const ask = async (work: Promise<Plain>) => {
    const answer = await work;
    setProblems(answer.ok ? [] : answer.problems);
    await reload();
    router.refresh();
  };
  if (files.length === 0) return <p className="quiet">The folder holds no files.</p>;
  return (
    <>
      <table className="table" aria-label="Files of the image folder">
        <thead>
          <tr>
            <th>File</th>
            <th>Size</th>
            <th>On the shelf</th>
            <th className="w-[40%]"></th>
          </tr>
        </thead>
        <tbody>
          {files.map((f) => (
            <tr key={f.name}>
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
                  <span className="quiet">not yet</span>
                )}
              </td>
              <td>
                <Work
                  file={f}
                  stop={() => void stop(f.name).then(reload)}
                  compute={(id) => void ask(compute(id, f.name))}
                  shelve={() => void ask(shelve(f.name))}
                />
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
const Work = ({
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
}) =>
  f.job?.state === "computing" ? (
    <Progress {...f.job} fileName={f.name} onStop={stop} />
  ) : f.job?.state === "waiting" ? (
    <span className="flex flex-wrap items-baseline gap-3" role="status">
      {f.job.algorithm} waits until the files before it are done
      <button type="button" className="link" onClick={stop}>
        stop
      </button>
    </span>
  ) : (
    <span className="flex flex-wrap items-baseline gap-3">
      {f.image ? (
        <button type="button" className="link" onClick={() => compute(f.image?.id ?? "")}>
          compute its checksum
        </button>
      ) : (
        <button type="button" className="link" onClick={shelve}>
          put it on the shelf
        </button>
      )}
      {f.job && (
        <span className="quiet" role="status">
          {f.job.state === "failed" ? f.job.problem : `${f.job.algorithm} ${f.job.state}`}
        </span>
      )}
    </span>
  );
