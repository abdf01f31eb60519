"use client";

import { useRouter } from "next/navigation";
import { useState } from "react";
import type { Inspection } from "@/core/image";
import type { Problem } from "@/core/result";
import { Problems } from "../frame/problems";
import { DropWell } from "./drop-well";
import { lookInto, startJob } from "./image-job";

type Digest = { ok: true; value: number } | { ok: false; problems: Problem[] };

/** Puts an image on the shelf by dropping its file: what it is, is read from it, and its checksum computed on its sheet. */
export function AddFile({
  keepFile,
  keepDigest,
}: {
  keepFile: (
    fileName: string,
    found: Inspection,
  ) => Promise<{ ok: true; value: { id: string; known: boolean } } | { ok: false; problems: Problem[] }>;
  keepDigest: (id: string, algorithm: "sha256", digest: string) => Promise<Digest>;
}) {
  const router = useRouter();
  const [looking, setLooking] = useState("");
  const [problems, setProblems] = useState<Problem[]>([]);
  const take = async (file: File) => {
    setProblems([]);
    setLooking(file.name);
    const found = await lookInto(file);
    const answer = found
      ? await keepFile(file.name, found)
      : { ok: false as const, problems: [{ message: `${file.name} could not be read.` }] };
    setLooking("");
    if (!answer.ok) return setProblems(answer.problems);
    const { id } = answer.value;
    void startJob(
      id,
      file,
      "sha256",
      () => Promise.resolve(),
      async (digest) => {
        await keepDigest(id, "sha256", digest);
        router.refresh();
      },
    );
    router.push(`/images/${id}`);
  };
  return (
    <div className="mb-4">
      <DropWell
        title="Drop an image file to put it on the shelf"
        hint="It is read here, in this browser, and not sent anywhere."
        onFile={(file) => void take(file)}
      />
      {looking && (
        <p role="status" className="quiet mt-2">
          Looking inside {looking} …
        </p>
      )}
      <Problems problems={problems} title="Not put on the shelf" />
    </div>
  );
}
