"use client";

import { useState } from "react";
import type { Checksum, Inspection } from "@/core/image";
import type { Problem } from "@/core/result";
import { Problems } from "../frame/problems";
import { DropWell } from "../image/drop-well";
import { lookInto, startJob } from "../image/image-job";

type Answer<T> = { ok: true; value: T } | { ok: false; problems: Problem[] };

/** How an image that is not on the shelf yet comes onto a sheet. */
export interface ImageActions {
  keepFile(fileName: string, found: Inspection): Promise<Answer<{ id: string; known: boolean }>>;
  keepDigest(id: string, algorithm: Checksum["algorithm"], digest: string): Promise<Answer<number>>;
}

/** A well for the file that is to be installed: it is read in this browser, and chosen on the sheet at once. */
export default function BringImage({
  actions,
  onChosen,
}: {
  actions: ImageActions;
  onChosen: (id: string) => void;
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
    const keep = (digest: string) => actions.keepDigest(id, "sha256", digest).then(() => undefined);
    // The checksum is computed on the side, whatever page is open.
    void startJob(id, file, "sha256", () => Promise.resolve(), keep);
    onChosen(id);
  };
  return (
    <div className="col-span-full">
      <DropWell
        title="Drop the image file that is to be installed"
        hint="It is read here, in this browser, and not sent anywhere."
        onFile={(file) => void take(file)}
      />
      {looking && (
        <p role="status" className="quiet mt-2">
          Looking inside {looking} …
        </p>
      )}
      <Problems problems={problems} title="Not taken" />
    </div>
  );
}
