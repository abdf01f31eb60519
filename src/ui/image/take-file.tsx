"use client";

import { useState } from "react";
import type { Answer } from "@/contract";
import type { Checksum, Inspection } from "@/core/image";
import type { Problem } from "@/core/result";
import { Problems } from "../frame/problems";
import { DropWell } from "./drop-well";
import { lookInto, startJob } from "./image-job";

/** How an image that is not on the shelf yet is put there. */
export interface ImageActions {
  keepFile(fileName: string, found: Inspection): Promise<Answer<{ id: string; known: boolean }>>;
  keepDigest(id: string, algorithm: Checksum["algorithm"], digest: string): Promise<Answer<number>>;
}

/**
 * A well for an image file: what it is, is read from it in this browser; it is on the shelf at once, and its checksum is
 * computed on the side, whatever page is open.
 */
export default function TakeFile({
  title,
  actions,
  onTaken,
  onDigest,
}: {
  title: string;
  actions: ImageActions;
  onTaken: (id: string) => void;
  onDigest?: () => void;
}) {
  const [looking, setLooking] = useState("");
  const [problems, setProblems] = useState<Problem[]>([]);
  const take = async (file: File) => {
    setProblems([]);
    setLooking(file.name);
    const found = await lookInto(file);
    const answer = found
      ? await actions.keepFile(file.name, found)
      : { ok: false as const, problems: [{ message: `${file.name} could not be read.` }] };
    setLooking("");
    if (!answer.ok) return setProblems(answer.problems);
    const { id } = answer.value;
    const keep = (digest: string) => actions.keepDigest(id, "sha256", digest).then(onDigest);
    void startJob(id, file, "sha256", () => Promise.resolve(), keep);
    onTaken(id);
  };
  return (
    <div className="col-span-full">
      <DropWell
        title={title}
        hint="The file is read in this browser and not uploaded."
        onFile={(file) => void take(file)}
      />
      {looking && (
        <p role="status" className="quiet mt-2">
          Inspecting {looking}…
        </p>
      )}
      <Problems problems={problems} title="Not added to the library" />
    </div>
  );
}
