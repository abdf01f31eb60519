"use client";

import { useRouter } from "next/navigation";
import { useState } from "react";
import type { Answer, ImportPreview } from "@/contract";
import type { Problem } from "@/core/result";
import { useKept } from "../draft/use-kept";
import { Problems } from "../frame/problems";
import { PreviewTables, ReadAgain, readThem } from "./import-panel";
import { ImportWell, type DroppedText } from "./import-well";

interface Props {
  sites: { id: string; name: string }[];
  create: (siteId: string, siteName: string, name: string, texts: DroppedText[]) => Promise<Answer<string>>;
}

const NOT_MADE = {
  ok: false as const,
  problems: [{ message: "The server did not save the machine. Your input is kept." }],
};

/** A new machine from what its tools printed; without anything to drop it can be made by name and read later. */
export function NewMachine({ sites, create }: Props) {
  const router = useRouter();
  const [texts, setTexts] = useKept<DroppedText[]>("texts", []);
  const [preview, setPreview] = useState<ImportPreview | null>(null);
  const [problems, setProblems] = useState<Problem[]>([]);
  const [name, setName] = useKept("name", "");
  const [site, setSite] = useState(sites[0]?.id ?? "");
  const [siteName, setSiteName] = useKept("site", "");
  const [busy, setBusy] = useState(false);

  const look = async (dropped: DroppedText[]) => {
    const answer = await readThem(null, dropped);
    setProblems(answer.ok ? [] : answer.problems);
    if (!answer.ok) return;
    setTexts(dropped);
    setPreview(answer.value);
    if (name === "" && answer.value.understood.length > 0) setName(answer.value.suggestedName);
  };
  const make = async () => {
    setBusy(true);
    const given = preview && preview.understood.length > 0 ? texts : [];
    const answer = await create(site, siteName, name, given).catch((): typeof NOT_MADE => NOT_MADE);
    setBusy(false);
    if (!answer.ok) return setProblems(answer.problems);
    setTexts([]);
    setName("");
    setSiteName("");
    router.push(`/machines/${answer.value}`);
  };
  return (
    <div className="space-y-4">
      {texts.length > 0 && !preview && <ReadAgain count={texts.length} onRead={() => look(texts)} />}
      <ImportWell onTexts={look} label="Drop the output of the machine's tools, or a collector bundle" />
      {preview && <PreviewTables preview={preview} />}
      <Problems problems={problems} />
      <form
        className="grid max-w-2xl gap-4 md:grid-cols-2"
        onSubmit={(e) => {
          e.preventDefault();
          void make();
        }}
      >
        <label>
          <span className="label">Machine name, as on its front</span>
          <input className="input" value={name} maxLength={80} onChange={(e) => setName(e.target.value)} />
        </label>
        <label>
          <span className="label">Site</span>
          <select className="select" value={site} onChange={(e) => setSite(e.target.value)}>
            {sites.map((s) => (
              <option key={s.id} value={s.id}>
                {s.name}
              </option>
            ))}
            <option value="">new site…</option>
          </select>
        </label>
        {site === "" && (
          <label>
            <span className="label">Site name</span>
            <input
              className="input"
              value={siteName}
              maxLength={80}
              onChange={(e) => setSiteName(e.target.value)}
            />
          </label>
        )}
        <div className="col-span-full">
          <button
            type="submit"
            className="btn btn-primary"
            disabled={busy || name.trim() === "" || (site === "" && siteName.trim() === "")}
          >
            Add machine
          </button>
        </div>
      </form>
    </div>
  );
}
