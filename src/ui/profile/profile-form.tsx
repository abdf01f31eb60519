"use client";

import { usePathname, useRouter } from "next/navigation";
import { useEffect, useState, type ReactNode } from "react";
import { FormProvider, useForm, type UseFormReturn } from "react-hook-form";
import { ANSWER_FILES, TARGET_KINDS, type Profile } from "@/core/image";
import { diffDocuments, type Edit } from "@/core/document";
import type { Problem } from "@/core/result";
import { useFormHistory } from "../draft/use-form-history";
import { keptText, valueOf } from "../draft/use-kept";
import { UndoRedo } from "../draft/save-state";
import { StaleSlip } from "../draft/stale-slip";
import { Problems } from "../frame/problems";
import { Choice, Input, Lines, Rows, Tick, Ticks, type Path } from "./inputs";
import { ProfilePreview, type PreviewOf } from "./preview";
import { ScreensEditor } from "./screens-editor";
import { tidy } from "./tidy";
import { FateEditor, FaultsEditor, UpgradesEditor } from "./upgrades-editor";

const NEEDS = ["required", "wished", "not needed"] as const;

function Part({ title, children, plain = false }: { title: string; children: ReactNode; plain?: boolean }) {
  return (
    <details className="border-b py-1.5 border-base-content">
      <summary className="cursor-pointer font-semibold">{title}</summary>
      <div
        className={
          plain
            ? "py-2"
            : "grid gap-x-6 gap-y-2 py-2 grid-cols-[repeat(auto-fit,minmax(min(15rem,100%),1fr))]"
        }
      >
        {children}
      </div>
    </details>
  );
}

/** The first wrong field is shown: the parts that it stands in are opened. */
function openTo(path: string): void {
  const field = document.querySelector(`[name="${path}"]`);
  for (let part = field?.closest("details"); part; part = part.parentElement?.closest("details"))
    part.open = true;
}

type Kept =
  | { ok: true; value: { edition: number } }
  | { ok: false; problems: Problem[]; stale?: { edition: number; profile: Profile; by: string; at: string } };

/** What people call the lists of a profile; its other fields are told by their paths. */
const LISTS: Readonly<Record<string, string>> = {
  knownFaults: "Known faults",
  upgrades: "Supported upgrades to this version",
  screens: "Installer screens",
  firstBoot: "First-boot tasks",
  editions: "Product editions",
  bootTargets: "Boot devices",
  consoleKeys: "Other consoles",
  defaultLogins: "Default logins",
  "requirements.firmware": "Minimum firmware by model",
};

/** What is typed lives through a reload, over the edition that it was typed on; `drop` gives it up. */
function useKeptForm({ watch, reset }: UseFormReturn<Profile>, edition: number) {
  const key = `${usePathname()} form ${edition}`;
  useEffect(() => {
    const kept = valueOf<Profile | null>(keptText.read(key), null);
    if (kept) reset(kept, { keepDefaultValues: true });
    const typing = watch((values) => keptText.write(key, JSON.stringify(values)));
    return () => typing.unsubscribe();
  }, [key, watch, reset]);
  return () => keptText.write(key, null);
}

/** The form over the edition that it was begun on; keeping it, and what is chosen where another edition came between. */
function useEdition(
  given: Profile,
  edition: number,
  save: (edition: number, fields: object) => Promise<Kept>,
) {
  const router = useRouter();
  const [base, setBase] = useState({ edition, profile: given });
  const form = useForm<Profile>({ defaultValues: given });
  const history = useFormHistory(form);
  const drop = useKeptForm(form, edition);
  const [answer, setAnswer] = useState<Kept | null>(null);
  const keep = form.handleSubmit(async (values) => {
    const next = await save(base.edition, tidy(values) as object);
    setAnswer(next);
    if (next.ok) {
      drop();
      setBase({ edition: next.value.edition, profile: values });
      return router.refresh();
    }
    const path = /^([\w.]+): /.exec(next.problems[0]?.message ?? "")?.[1];
    if (!path) return;
    openTo(path);
    form.setFocus(path as Path);
  });
  const stale = answer?.ok === false ? answer.stale : undefined;
  const clash = stale && {
    ...stale,
    mine: diffDocuments(tidy(base.profile), tidy(form.getValues())),
  };
  // What stays of one's own is put over the edition that came between; it is kept when its maker says so again.
  const settle = (kept: readonly Edit[]) => {
    if (!stale) return;
    form.reset(stale.profile);
    for (const { path, after } of kept) form.setValue(path as Path, after as never);
    history.begin();
    setBase({ edition: stale.edition, profile: stale.profile });
    setAnswer(null);
  };
  return { form, history, keep, answer, clash, settle };
}

/** A profile in a form. Keeping it makes the next edition; builds that were made with the one before keep theirs. */
export function ProfileForm({
  profile,
  edition,
  save,
  previewOf,
}: {
  profile: Profile;
  edition: number;
  save: (edition: number, fields: object) => Promise<Kept>;
  previewOf: PreviewOf;
}) {
  const { form, history, keep, answer, clash, settle } = useEdition(profile, edition, save);
  const problems = answer?.ok === false && !clash ? answer.problems : [];
  const said = answer?.ok ? `saved as revision ${answer.value.edition}` : "";
  return (
    <FormProvider {...form}>
      <div className="grid items-start gap-x-10 gap-y-4 lg:grid-cols-[minmax(0,1.6fr)_minmax(0,1fr)]">
        <form onSubmit={(e) => void keep(e)} aria-label="Profile form">
          <WhatItIs />
          <Requirements />
          <Firmware />
          <Accounts />
          <Part title="Known faults" plain>
            <FaultsEditor />
          </Part>
          <Part title="Fresh installation">
            <FateEditor path="fresh" />
          </Part>
          <Part title="Supported upgrades to this version" plain>
            <UpgradesEditor />
          </Part>
          <Part title="Installer screens" plain>
            <ScreensEditor path="screens" what="screen" />
          </Part>
          <Part title="First-boot tasks" plain>
            <ScreensEditor path="firstBoot" what="task" />
          </Part>
          <div className="mt-3">
            <Problems
              problems={problems}
              title={`Not saved: ${problems.length} ${problems.length === 1 ? "problem" : "problems"}`}
            />
            <button type="submit" className="btn btn-primary" disabled={form.formState.isSubmitting}>
              Save as the next revision
            </button>
            <span className="ml-3 inline-flex gap-3">
              <UndoRedo {...history} />
              {said && (
                <span role="status" className="quiet">
                  {said}
                </span>
              )}
            </span>
          </div>
        </form>
        <section
          aria-label="Resulting steps"
          tabIndex={0}
          className="lg:sticky lg:top-12 lg:max-h-[80vh] lg:overflow-auto"
        >
          <ProfilePreview previewOf={previewOf} />
        </section>
      </div>
      {clash && (
        <StaleSlip {...{ what: "profile", clash, settle, names: LISTS }} standing={tidy(clash.profile)} />
      )}
    </FormProvider>
  );
}

const WhatItIs = () => (
  <Part title="Identity">
    <Input path="name" label="Name" />
    <Input path="family" label="OS family, in general words" />
    <Choice path="installer" label="Installer" options={["graphical", "text"]} />
    <Choice path="answerFile" label="Answers" options={ANSWER_FILES} />
    <Input path="identify.id" label="ID in /etc/os-release" />
    <Input path="identify.version" label="Version in /etc/os-release begins with" />
    <Choice
      path="support.channel"
      label="Support status"
      options={["long-term", "current", "pre-release", "out of support"]}
    />
    <Input path="support.ends" label="Support ends" kind="date" />
    <Input path="evaluationDays" label="Evaluation period, days" kind="number" />
    <Lines path="recognise" label="Words of its file names" rows={1} />
    <Rows
      path="editions"
      label="Product editions"
      columns={[
        { key: "name", title: "name", width: "22%" },
        { key: "suits", title: "suits", width: "39%" },
        { key: "lacks", title: "lacks" },
      ]}
    />
  </Part>
);

const Requirements = () => (
  <Part title="Requirements">
    {(["memoryBytes", "diskBytes", "cores"] as const).flatMap((key) =>
      (["least", "recommended"] as const).map((which) => (
        <Input
          key={key + which}
          path={`requirements.${key}.${which}`}
          label={`${{ memoryBytes: "Minimum memory, bytes", diskBytes: "Minimum disk, bytes", cores: "Cores" }[key]}, ${which}`}
          kind="number"
        />
      )),
    )}
    <Choice path="requirements.virtualisation" label="Virtualisation" options={NEEDS} />
    <Choice path="requirements.iommu" label="IOMMU" options={NEEDS} />
    <Choice
      path="requirements.processorLevel"
      label="Processor level"
      options={["", "x86-64-v1", "x86-64-v2", "x86-64-v3", "x86-64-v4"]}
    />
    <Ticks path="requirements.architectures" label="Architectures" options={["x86_64", "aarch64"]} />
    <Rows
      path="requirements.firmware"
      label="Minimum firmware by model"
      columns={[
        { key: "model", title: "model" },
        { key: "part", title: "part", options: ["system firmware", "management controller"] },
        { key: "least", title: "least" },
        { key: "why", title: "why", width: "40%" },
      ]}
    />
  </Part>
);

const Firmware = () => (
  <Part title="Firmware, boot targets and consoles">
    <Ticks path="firmware.modes" label="Boot modes" options={["uefi", "legacy"]} />
    <Choice path="secureBoot" label="Secure Boot" options={["works", "must be off"]} />
    <Input path="firmware.bootMenuSeconds" label="Boot menu time-out, s" kind="number" />
    <Input path="restart.likely" label="Expected restart time, s" kind="number" />
    <Input path="restart.late" label="Maximum restart time (P90), s" kind="number" />
    <Rows
      path="bootTargets"
      label="Boot devices"
      columns={[
        { key: "kind", title: "kind", options: TARGET_KINDS },
        { key: "verdict", title: "verdict", options: ["supported", "discouraged", "not supported"] },
        { key: "words", title: "description", width: "55%" },
      ]}
    />
    <Rows
      path="consoleKeys"
      label="Other consoles"
      columns={[
        { key: "keys", title: "keys", width: "30%" },
        { key: "opens", title: "open" },
      ]}
    />
  </Part>
);

const Accounts = () => (
  <Part title="Names, accounts and passwords">
    <Input path="accounts.superUser" label="Root account (superuser)" />
    <Tick path="accounts.needsAdministrator" label="requires an administrator in addition" />
    <Input path="accounts.adminGroup" label="Administrator group" />
    <Choice path="hostName.domain" label="Domain" options={["required", "wanted", "not used"]} />
    <Input path="passwords.leastLength" label="Minimum password length" kind="number" />
    <Input path="passwords.classes" label="Character classes" kind="number" />
    <Tick path="passwords.edgesCount" label="a leading capital and a final digit count" />
    <Tick path="passwords.mayHoldName" label="may contain the account name" />
    <Input path="passwords.words" label="Description of the rule" wide />
    <Lines path="accounts.reserved" label="Reserved names" rows={1} />
    <Lines path="keyboards" label="Keyboard layouts" rows={1} />
    <Rows
      path="defaultLogins"
      label="Default logins"
      columns={[
        { key: "name", title: "name" },
        { key: "opens", title: "opens" },
        { key: "changedOn", title: "changed on screen" },
      ]}
    />
    <Input path="management.address" label="Management address" />
    <Choice
      path="management.kind"
      label="Management interface"
      options={["web page", "remote shell", "console only"]}
    />
    <Tick path="management.certificateWarning" label="shows a certificate warning" />
  </Part>
);
