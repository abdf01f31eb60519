"use client";

import Image from "next/image";
import { useRouter } from "next/navigation";
import { useRef, useState } from "react";
import type { Problem } from "@/core/result";
import { asked } from "../frame/ask";
import { useKept } from "../draft/use-kept";
import { Problems } from "../frame/problems";
import { shrinkPicture } from "./shrink-picture";
import { Day } from "../frame/person";

export interface Picture {
  id: string;
  at: string;
  by: string;
  caption: string;
}

/** Sends one picture, made smaller; problems in words, none when it is kept. */
async function sendPicture(machineId: string, file: File, caption: string): Promise<Problem[]> {
  const picture = await shrinkPicture(file);
  if (!picture)
    return [{ message: `${file.name} is not a picture that this browser can read. Use PNG, JPEG or WebP.` }];
  const answer = await asked<unknown>(
    `/api/v1/machines/${machineId}/pictures?caption=${encodeURIComponent(caption || file.name)}`,
    "the picture was not saved",
    { method: "POST", headers: { "Content-Type": picture.type }, body: picture },
  );
  return answer.ok ? [] : answer.problems;
}

/** Pictures beside the notes: dropped, pasted or chosen; each with a caption and who took it. */
export function Pictures({
  machineId,
  pictures,
  remove,
}: {
  machineId: string;
  pictures: Picture[];
  remove: (id: string) => Promise<void>;
}) {
  const router = useRouter();
  const input = useRef<HTMLInputElement>(null);
  const [caption, setCaption] = useKept("caption", "");
  const [problems, setProblems] = useState<Problem[]>([]);
  const send = async (files: File[]) => {
    for (const file of files) {
      const refused = await sendPicture(machineId, file, caption);
      setProblems(refused);
      if (refused.length > 0) return;
    }
    setCaption("");
    router.refresh();
  };
  return (
    <div
      onDragOver={(e) => e.preventDefault()}
      onDrop={(e) => {
        e.preventDefault();
        void send([...e.dataTransfer.files]);
      }}
      onPaste={(e) => {
        const files = [...e.clipboardData.files];
        if (files.length > 0) void send(files);
      }}
    >
      {pictures.length > 0 && (
        <ul className="mb-3 flex flex-wrap gap-4">
          {pictures.map((p) => (
            <Shown key={p.id} picture={p} remove={() => void remove(p.id).then(() => router.refresh())} />
          ))}
        </ul>
      )}
      <div className="flex flex-wrap items-end gap-3">
        <label className="w-72">
          <span className="label">Caption of the next picture</span>
          <input
            className="input"
            value={caption}
            maxLength={200}
            onChange={(e) => setCaption(e.target.value)}
          />
        </label>
        <button type="button" className="btn" onClick={() => input.current?.click()}>
          Choose a picture
        </button>
        <input
          ref={input}
          type="file"
          accept="image/png,image/jpeg,image/webp"
          className="sr-only"
          aria-label="Picture"
          tabIndex={-1}
          onChange={(e) => void send([...(e.target.files ?? [])])}
        />
        <span className="quiet">
          or drop or paste one here; it is scaled down, and camera metadata is removed
        </span>
      </div>
      <Problems problems={problems} />
    </div>
  );
}

const Shown = ({ picture: p, remove }: { picture: Picture; remove: () => void }) => (
  <li className="w-56">
    <a href={`/api/v1/pictures/${p.id}`}>
      <Image
        unoptimized
        width={224}
        height={150}
        src={`/api/v1/pictures/${p.id}`}
        alt={p.caption}
        className="h-36 w-56 border object-cover border-base-300"
      />
    </a>
    <p className="leading-snug [overflow-wrap:anywhere]">{p.caption}</p>
    <p className="quiet text-[0.86rem]">
      <Day at={p.at} />, {p.by}{" "}
      <button type="button" className="link" onClick={remove}>
        Remove
      </button>
    </p>
  </li>
);
