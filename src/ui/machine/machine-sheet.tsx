"use client";

import { useRouter } from "next/navigation";
import { useState, type ReactNode } from "react";
import type { Answer, DriveFile } from "@/contract";
import { foldFindings, type PlacedFinding } from "@/core/finding";
import type { MachineDocument, MachineDrawing as Drawing } from "@/core/machine";
import type { PortOutlook } from "@/core/network";
import type { Problem } from "@/core/result";
import { Problems } from "../frame/problems";
import { Note } from "../findings/note";
import { ControllerCard, DriveCard, EmptyBayCard, PortCard, SupplyCard } from "./cards";
import { MachineDrawing } from "./machine-drawing";
import type { Selection } from "./selection";
import { useKeys } from "../frame/use-keys";

/** The machine: drawings, the card of what is chosen in them and what the rules say in the margin, facts below. */
export function MachineSheet({
  document,
  drawing,
  files,
  findings,
  initial,
  outlooks,
  place,
  children,
}: {
  document: MachineDocument;
  drawing: Drawing;
  files: Record<string, DriveFile>;
  findings: PlacedFinding[];
  initial: Selection | null;
  /** What is to be expected of each port, by its MAC. */
  outlooks: Record<string, PortOutlook>;
  place: (driveId: string, bay: string | null) => Promise<Answer<number>>;
  children: ReactNode;
}) {
  const router = useRouter();
  const [chosen, setChosen] = useState<Selection | null>(initial);
  const [problems, setProblems] = useState<Problem[]>([]);
  const focusFace = (face: string) =>
    window.document
      .querySelector<HTMLElement>(
        `[data-face="${face}"] [data-tile][tabindex="0"], [data-face="${face}"] [data-tile]`,
      )
      ?.focus();
  useKeys("f", () => focusFace(drawing.front.length > 0 ? "front" : "tray"));
  useKeys("r", () => focusFace("rear"));
  useKeys("escape", () => setChosen(null));
  const put = async (driveId: string, bay: string | null) => {
    const answer = await place(driveId, bay);
    setProblems(answer.ok ? [] : answer.problems);
    if (answer.ok) {
      setChosen({ kind: "drive", id: driveId });
      router.refresh();
    }
  };
  const groups = [...drawing.front, ...drawing.rear, ...drawing.inside];
  const freeBays = groups.flatMap((g) => g.bays.filter((b) => b.drive === null).map((b) => b.name));
  return (
    <div className="grid gap-x-6 gap-y-5 sheet:grid-cols-[minmax(0,1fr)_20rem] sheet:grid-rows-[auto_1fr]">
      <div className="min-w-0">
        <MachineDrawing drawing={drawing} chosen={chosen} onChoose={setChosen} />
      </div>
      <aside aria-label="Findings panel" className="min-w-0 sheet:row-span-2">
        <div
          className="sheet:sticky sheet:top-14 sheet:max-h-[calc(100dvh-8rem)] sheet:space-y-4 sheet:overflow-y-auto"
          aria-live="polite"
        >
          <Problems problems={problems} />
          {chosen ? (
            card()
          ) : (
            <p className="quiet mb-3">Select a bay, port or controller to see its details.</p>
          )}
          <Findings
            findings={findings}
            onDrive={(id) => setChosen({ kind: "drive", id })}
            drives={document.facts.drives.map((d) => d.id)}
          />
        </div>
      </aside>
      <div className="min-w-0">{children}</div>
    </div>
  );

  function card(): ReactNode {
    if (chosen?.kind === "drive") {
      const drive = document.facts.drives.find((d) => d.id === chosen.id);
      return drive ? (
        <DriveCard
          drive={drive}
          file={files[drive.id] ?? null}
          document={document}
          freeBays={freeBays}
          onPlace={(bay) => void put(drive.id, bay)}
        />
      ) : null;
    }
    if (chosen?.kind === "bay")
      return (
        <EmptyBayCard bay={chosen.name} loose={drawing.unplaced} onPut={(id) => void put(id, chosen.name)} />
      );
    if (chosen?.kind === "port") {
      const port = document.facts.ports.find((p) => p.mac === chosen.mac);
      return port ? <PortCard port={port} document={document} outlook={outlooks[port.mac]} /> : null;
    }
    if (chosen?.kind === "controller") return <ControllerCard id={chosen.id} document={document} />;
    return chosen ? <SupplyCard id={chosen.id} document={document} /> : null;
  }
}

/** What the rules say of the machine as it stands; one about a drive opens that drive. */
function Findings({
  findings,
  drives,
  onDrive,
}: {
  findings: PlacedFinding[];
  drives: string[];
  onDrive: (id: string) => void;
}) {
  if (findings.length === 0) return <p className="quiet">No findings for this machine.</p>;
  // The zones of sheets say nothing of a machine by itself: its notes are one line.
  const groups = foldFindings(findings.map((f) => ({ ...f, label: "", zone: "A" })));
  const more = ({ subject }: PlacedFinding): ReactNode =>
    subject && drives.includes(subject) ? (
      <button type="button" className="link quiet text-[0.86rem]" onClick={() => onDrive(subject)}>
        Show drive
      </button>
    ) : null;
  return (
    <section aria-label="Findings" className="flex flex-col gap-2.5 [&>article]:mb-0">
      {groups.map((g) => (
        <Note key={g.key} group={g} acts={{ more }} isBrief={false} />
      ))}
    </section>
  );
}
