"use client";

import { useRouter } from "next/navigation";
import { useEffect, useRef, useState, useSyncExternalStore } from "react";
import type { Checksum, Inspection } from "@/core/image";
import type { Problem } from "@/core/result";
import { formatBytes, formatDecimalBytes, formatDuration } from "@/core/units";
import { Problems } from "../frame/problems";
import { currentJob, startJob, stopJob, subscribe } from "./image-job";

type Answer = { ok: true; value: number } | { ok: false; problems: Problem[] };

/**
 * Drop the file that will be used: it is read here in the browser, inspected at once and its checksum computed beside
 * the work; other pages may be opened meanwhile. Nothing of it is sent but what was found.
 */
export function LookInside({
  imageId,
  version,
  algorithm,
  keepInside,
  keepDigest,
}: {
  imageId: string;
  version: number;
  algorithm: Checksum["algorithm"];
  keepInside: (version: number, fileName: string, found: Inspection) => Promise<Answer>;
  keepDigest: (version: number, digest: string) => Promise<Answer>;
}) {
  const router = useRouter();
  const job = useSyncExternalStore(subscribe, currentJob, () => null);
  const [over, setOver] = useState(false);
  const [problems, setProblems] = useState<Problem[]>([]);
  const input = useRef<HTMLInputElement>(null);
  // The version moves while a long computation runs; the newest one is what a save is based on.
  const newest = useRef(version);
  useEffect(() => {
    newest.current = Math.max(newest.current, version);
  }, [version]);
  const own = job?.imageId === imageId ? job : null;
  const saved = (answer: Answer) => {
    if (answer.ok) newest.current = answer.value;
    setProblems(answer.ok ? [] : answer.problems);
    router.refresh();
  };
  const take = (file: File | undefined) => {
    if (!file) return;
    setProblems([]);
    void startJob(
      imageId,
      file,
      algorithm,
      async (found) => saved(await keepInside(newest.current, file.name, found)),
      async (digest) => saved(await keepDigest(newest.current, digest)),
    );
  };
  const left = own && own.rate > 0 ? (own.size - own.done) / own.rate : null;
  return (
    <div>
      <div
        onDragOver={(e) => {
          e.preventDefault();
          setOver(true);
        }}
        onDragLeave={() => setOver(false)}
        onDrop={(e) => {
          e.preventDefault();
          setOver(false);
          take(e.dataTransfer.files[0]);
        }}
        className="flex flex-wrap items-center gap-3 border border-dashed p-3"
        style={{
          borderColor: "currentColor",
          background: over ? "color-mix(in oklab, var(--color-warning) 18%, transparent)" : undefined,
        }}
      >
        <span className="font-medium">Drop the very file that will be used</span>
        <button type="button" className="stamp" onClick={() => input.current?.click()}>
          Choose the file
        </button>
        <input
          ref={input}
          type="file"
          className="sr-only"
          aria-label="Image file"
          tabIndex={-1}
          onChange={(e) => take(e.target.files?.[0])}
        />
        <span className="quiet text-[0.86rem]">
          It is read here and not sent anywhere; {algorithm} is computed beside.
        </span>
      </div>
      {own && (
        <div className="mt-2" role="status">
          {own.state === "looking" && <p>Looking inside {own.fileName} …</p>}
          {own.state === "computing" && (
            <>
              <div className="h-3 border" style={{ borderColor: "currentColor" }}>
                <div
                  className="hatched h-full"
                  style={{ width: `${(100 * own.done) / Math.max(1, own.size)}%` }}
                />
              </div>
              <p className="flex flex-wrap items-baseline gap-3">
                <span>
                  {own.algorithm} of {own.fileName}:{" "}
                  <span className="value">{Math.floor((100 * own.done) / Math.max(1, own.size))} %</span> of{" "}
                  {formatBytes(own.size)}
                </span>
                {own.rate > 0 && <span className="quiet">{formatDecimalBytes(own.rate)}/s</span>}
                {left !== null && <span className="quiet">{formatDuration(left)} left</span>}
                <button type="button" className="link-quiet" onClick={stopJob}>
                  stop
                </button>
              </p>
            </>
          )}
          {own.state === "done" && <p className="quiet">Computed over {own.fileName}.</p>}
          {own.state === "stopped" && <p>Stopped; what was found inside is kept.</p>}
          {own.state === "failed" && (
            <Problems problems={[{ message: own.problem ?? "" }]} title="Not read to its end" />
          )}
        </div>
      )}
      {job && !own && (job.state === "computing" || job.state === "looking") && (
        <p className="quiet mt-2">Another file is being read: {job.fileName}. A new one ends it.</p>
      )}
      <Problems problems={problems} />
    </div>
  );
}
