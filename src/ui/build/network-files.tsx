"use client";

import { useState } from "react";
import type { NetworkFormat } from "@/core/image";
import { hostPlan, NETWORK_WRITERS, timedCommands, timedFiles, writeCommands } from "@/core/network";
import { formatProblem, type Problem } from "@/core/result";
import { ChoiceField, ParsedField } from "../fields/fields";
import { wholeField } from "../fields/numbers";
import { FileText } from "../network/file-text";
import type { PartProps } from "./zone-props";

const minutes = wholeField("1 to 60", (n) => n > 0 && n <= 60);
const FORMATS = Object.keys(NETWORK_WRITERS) as NetworkFormat[];

/** The network of this machine as files of its family, or lines of its tool, with the script that puts the old state back. */
export default function NetworkFiles({ view, sheet }: PartProps) {
  const { site, machine, profile } = view.context;
  const [chosen, setChosen] = useState<NetworkFormat | null>(null);
  const [wait, setWait] = useState<number | null>(5);
  const ground = { sheet, site, machine };
  const format = chosen ?? profile?.network.files[0] ?? null;
  const commands = profile && writeCommands(ground, profile.network);
  const waits = wait ?? 5;
  return (
    <div>
      <div className="mb-3 grid items-start gap-x-8 gap-y-2 sm:grid-cols-[auto_12rem]">
        <ChoiceField
          path="files.format"
          label="Format"
          value={format ?? ""}
          options={FORMATS.map((f) => ({ value: f, text: f }))}
          onChange={(f) => setChosen(f as NetworkFormat)}
          hint={hintOf(profile?.network.files ?? [], profile?.name ?? "")}
        />
        <ParsedField
          path="files.wait"
          label="Automatic rollback after, min"
          value={wait}
          {...minutes}
          onChange={setWait}
        />
      </div>
      {commands && (
        <Commands
          told={commands}
          script={commands.ok ? timedCommands(commands.value.lines, profile.network, waits) : null}
        />
      )}
      {format && <Written {...{ ground, format, waits }} host={sheet.answers} />}
      {!format && !commands && <p className="quiet">Choose a format: the profile names none.</p>}
    </div>
  );
}

const hintOf = (files: readonly string[], family: string): string =>
  files.length > 0 ? `${family} reads ${files.join(" or ")}` : "the profile names no network files";

const Told = ({ problems }: { problems: readonly Problem[] }) =>
  problems.length === 0 ? null : (
    <ul className="mb-3 border-l-2 pl-3 border-warning">
      {problems.map((p) => (
        <li key={p.message}>{formatProblem(p)}</li>
      ))}
    </ul>
  );

function Written({
  ground,
  format,
  waits,
  host,
}: {
  ground: Parameters<typeof hostPlan>[0];
  format: NetworkFormat;
  waits: number;
  host: { hostName: string; domain: string };
}) {
  const plan = hostPlan(ground, { hostName: host.hostName, domain: host.domain });
  if (!plan.ok)
    return (
      <>
        <p>Files not generated:</p>
        <Told problems={plan.problems} />
      </>
    );
  const { files, problems } = NETWORK_WRITERS[format]!(plan.value);
  return (
    <>
      <Told problems={problems} />
      {files.map((f) => (
        <FileText key={f.path} {...f} />
      ))}
      <FileText
        path="change-network.sh"
        text={timedFiles(format, files, waits)}
        note={`for a running machine: installs these files and restores the old ones after ${waits} min unless you confirm`}
      />
    </>
  );
}

function Commands({
  told,
  script,
}: {
  told: NonNullable<ReturnType<typeof writeCommands>>;
  script: string | null;
}) {
  if (!told.ok) return <Told problems={told.problems} />;
  return (
    <>
      <Told problems={told.value.problems} />
      <FileText
        path="commands"
        text={`${told.value.lines.join("\n")}\n`}
        note="commands of the network tool of this OS family"
      />
      {script && (
        <FileText path="change-network.sh" text={script} note="the same commands, with automatic rollback" />
      )}
    </>
  );
}
