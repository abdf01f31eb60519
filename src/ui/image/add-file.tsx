"use client";

import { useRouter } from "next/navigation";
import TakeFile, { type ImageActions } from "./take-file";

/** Puts an image on the shelf by dropping its file, and leads to its sheet. */
export function AddFile(actions: ImageActions) {
  const router = useRouter();
  return (
    <div className="mb-4">
      <TakeFile
        title="Drop an image file here to add it to the library"
        actions={actions}
        onTaken={(id) => router.push(`/images/${id}`)}
        onDigest={() => router.refresh()}
      />
    </div>
  );
}
