"use client";

import { useRouter } from "next/navigation";
import { useState, useSyncExternalStore } from "react";
import type { Answer } from "@/contract";
import { term } from "@/core/text";
import type { Checksum, Inspection } from "@/core/image";
import type { Problem } from "@/core/result";
import { Problems } from "../frame/problems";
import { DropWell } from "./drop-well";
import { currentJob, startJob, stopJob, subscribe } from "./image-job";
import { Progress } from "./progress";

/**
 * Drop the file that will be used: it is read here in the browser, inspected at once and its checksum computed beside
 * the work; other pages may be opened meanwhile. Nothing of it is sent but what was found.
 */
export function LookInside({
  imageId,
  algorithm,
  keepInside,
  keepDigest,
}: {
  imageId: string;
  algorithm: Checksum["algorithm"];
  keepInside: (fileName: string, found: Inspection) => Promise<Answer<number>>;
  keepDigest: (digest: string) => Promise<Answer<number>>;
}) {
  const router = useRouter();
  const job = useSyncExternalStore(subscribe, currentJob, () => null);
  const [problems, setProblems] = useState<Problem[]>([]);
  const own = job?.imageId === imageId ? job : null;
  const saved = (answer: Answer<number>) => {
    setProblems(answer.ok ? [] : answer.problems);
    router.refresh();
  };
  const take = (file: File) => {
    setProblems([]);
    void startJob(
      imageId,
      file,
      algorithm,
      async (found) => saved(await keepInside(file.name, found)),
      async (digest) => saved(await keepDigest(digest)),
    );
  };
  return (
    <div>
      <DropWell
        title="Drop the image file to inspect it"
        hint={`The file is read in this browser and not uploaded; its ${term(algorithm)} is computed at the same time.`}
        onFile={take}
      />
      {own && (
        <div className="mt-2" role="status">
          {own.state === "looking" && <p>Inspecting {own.fileName}…</p>}
          {own.state === "computing" && <Progress {...own} onStop={stopJob} />}
          {own.state === "done" && <p className="quiet">Computed from {own.fileName}.</p>}
          {own.state === "stopped" && <p>Stopped. The results of the inspection are kept.</p>}
          {own.state === "failed" && (
            <Problems problems={[{ message: own.problem ?? "" }]} title="Not read completely" />
          )}
        </div>
      )}
      {job && !own && (job.state === "computing" || job.state === "looking") && (
        <p className="quiet mt-2">Another file is being read: {job.fileName}. A new file stops it.</p>
      )}
      <Problems problems={problems} />
    </div>
  );
}
