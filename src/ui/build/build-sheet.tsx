"use client";

import Link from "next/link";
import { useRouter } from "next/navigation";
import { memo, useDeferredValue, useEffect, useMemo, useRef, useState } from "react";
import type { BuildView, MachineChoice } from "@/core/sheet";
import type { PlacedFinding, Zone } from "@/core/finding";
import { SaveState } from "../draft/save-state";
import { StaleSlip } from "../draft/stale-slip";
import { Problems } from "../frame/problems";
import { TitleBlock } from "../frame/title-block";
import { Band } from "./band";
import { Margin } from "../findings/margin";
import type { ImageActions } from "../image/take-file";
import { NextLine } from "./next-line";
import { useCures } from "./use-cures";
import { STAGE_VIEWS } from "./stages";

import { useSheet, type BuildActions, type SheetState } from "./use-sheet";
import { WaiveSlip } from "./waive-slip";
import { marksOf, type ZoneProps } from "./zone-props";
import { useKeys } from "../frame/use-keys";
import { usePrinting } from "../frame/use-printing";
import { Day } from "../frame/person";

/** The build sheet: one page in working order, its line at the left, its margin at the right, its title block at the foot. */
export function BuildSheet({
  initial,
  machines,
  names,
  actions,
  images,
  hand,
  isFirst,
}: {
  initial: BuildView;
  /** The machines that this sheet can be for. */
  machines: readonly MachineChoice[];
  /** What people call the fields of a sheet, by their paths. */
  names: Readonly<Record<string, string>>;
  actions: BuildActions;
  images: ImageActions;
  hand: string;
  /** Nothing was ever carried out here: the next thing to do is named. */
  isFirst: boolean;
}) {
  const state = useSheet(initial, actions);
  const { view } = state;
  const { evaluation, build } = view;
  const { toggled, isOpen, toggle, keepOpen } = useOpenStages(evaluation);
  const [drawer, setDrawer] = useState(false);
  const [waiving, setWaiving] = useState<PlacedFinding | null>(null);
  const sheetRef = useRef<HTMLDivElement>(null);

  useSheetKeys(evaluation, { toggle, keepOpen, onMargin: () => setDrawer(!drawer) });
  const cures = useCures(view, names, state.edit);
  const acts = useMemo(() => ({ ...cures, onWaive: setWaiving }), [cures]);
  const now = useZoneProps(state, { machines, images, actions });
  // A key is answered in the zone that it is pressed in; the others follow as soon as there is time.
  const [at, setAt] = useState<Zone | null>(null);
  const soon = useDeferredValue(now);

  return (
    <>
      <div ref={sheetRef} className="relative mx-auto w-full max-w-[92rem] flex-1 sheet:pr-[21rem]">
        <SheetHead state={state} onMargin={() => setDrawer(!drawer)} />
        {isFirst && <NextLine view={view} />}
        <div className="px-4">
          {view.run?.endedAt && (
            <p className="mt-2 border-l-4 py-1 pl-3 border-success">
              Installed and handed over on{" "}
              <Day at={view.run.endedAt} timeZone={view.context.site?.timeZone} />; the record has the result.
              The findings panel shows what a repetition would meet on the machine as it is now.
            </p>
          )}
          <Problems problems={state.problems} title="Not saved" />
        </div>
        {evaluation.stages.map((stage) => (
          <Band
            key={stage.zone}
            stage={stage}
            hook={stage.zone === evaluation.hook}
            open={isOpen(stage.zone)}
            onToggle={() => toggle(stage.zone)}
            onWork={() => {
              keepOpen(stage.zone);
              setAt(stage.zone);
            }}
          >
            {stage.state === "folded" ? null : (
              <StageView zone={stage.zone} props={stage.zone === at ? now : soon} />
            )}
          </Band>
        ))}
        <Margin
          findings={evaluation.findings}
          sheet={sheetRef}
          layoutKey={JSON.stringify(toggled)}
          drawer={drawer}
          isOpen={isOpen}
          acts={acts}
        />
      </div>
      <Foot view={view} saved={state.status === "saved"} actions={actions} />
      {state.clash && (
        <StaleSlip
          what="sheet"
          {...{ clash: state.clash, names, settle: state.settle }}
          standing={state.clash.view.build.sheet}
        />
      )}
      <WaiveSlip
        finding={waiving}
        hand={hand}
        onClose={() => setWaiving(null)}
        onWaive={async (key, reason) =>
          state.adopt(await actions.waive(build.id, build.version, key, reason))
        }
      />
    </>
  );
}

/** What the zones get; the same until something of it changes, so that a zone that is not touched is not drawn again. */
function useZoneProps(
  { view, sheet, edit, adopt }: SheetState,
  { machines, images, actions }: Pick<ZoneProps, "machines" | "images"> & { actions: BuildActions },
): ZoneProps {
  return useMemo(() => {
    const { id, version } = view.build;
    return {
      ...{ view, sheet, machines, images, edit, marks: marksOf(view) },
      like: async (family) => adopt(await actions.like(id, family)),
      agree: async (drive, typed) => adopt(await actions.agree(id, version, drive, typed)),
    };
  }, [view, sheet, machines, images, edit, adopt, actions]);
}

/** The keys of the sheet: a letter opens its zone, M the margin, P leads into the picture of the start. */
function useSheetKeys(
  evaluation: BuildView["evaluation"],
  { toggle, keepOpen, onMargin }: { toggle(zone: Zone): void; keepOpen(zone: Zone): void; onMargin(): void },
): void {
  const letters = evaluation.stages.map((s) => s.zone.toLowerCase()).join(",");
  useKeys(letters, (_, key) => {
    const zone = (key.keys?.join("") ?? "").toUpperCase() as Zone;
    toggle(zone);
    document.getElementById(`zone-${zone}`)?.scrollIntoView({ block: "start" });
  });
  useNamedZone(keepOpen);
  useKeys("m", onMargin);
  useKeys("p", () => {
    // A folded zone is opened first; its picture is there once that is drawn.
    if (!bootStation()) toggle("C");
    focusWhenDrawn(bootStation);
  });
}

/** A zone that the address names when the sheet is opened, or comes to name, as the find box makes it, stands open. */
function useNamedZone(open: (zone: Zone) => void): void {
  const latest = useRef(open);
  useEffect(() => {
    latest.current = open;
  });
  useEffect(() => {
    const show = (): void => {
      const zone = /^#zone-([A-Z])$/.exec(location.hash)?.[1];
      if (!zone) return;
      latest.current(zone as Zone);
      document.getElementById(`zone-${zone}`)?.scrollIntoView({ block: "start" });
    };
    const first = setTimeout(show);
    addEventListener("hashchange", show);
    return () => {
      clearTimeout(first);
      removeEventListener("hashchange", show);
    };
  }, []);
}

/** Which stages stand open. */
function useOpenStages(evaluation: BuildView["evaluation"]) {
  const [toggled, setToggled] = useState<Partial<Record<Zone, boolean>>>({});
  // What is settled folds to its one line; where the build hangs, and what a stop bends, stands open.
  const isPrinting = usePrinting();
  const isOpen = (zone: Zone): boolean =>
    isPrinting ||
    (toggled[zone] ??
      evaluation.stages.some(
        (s) => s.zone === zone && (s.state === "stopped" || (s.zone === evaluation.hook && s.zone !== "H")),
      ));
  const toggle = (zone: Zone): void => setToggled({ ...toggled, [zone]: !isOpen(zone) });

  // A stage that somebody works in does not fold under the hands because it has just been settled.
  const keepOpen = (zone: Zone): void => {
    if (toggled[zone] === undefined) setToggled({ ...toggled, [zone]: true });
  };
  return { toggled, isOpen, toggle, keepOpen };
}

/** Frames after which what was to be drawn is not waited for any more. */
const MOST_FRAMES = 120;

function focusWhenDrawn(find: () => HTMLElement | null, frames = MOST_FRAMES): void {
  const found = find();
  if (found) found.focus();
  else if (frames > 0) requestAnimationFrame(() => focusWhenDrawn(find, frames - 1));
}

const bootStation = (): HTMLElement | null => document.querySelector("#zone-C [data-station]");

/** What the build is for, whether it is saved, and the ways to its history and margin. */
function SheetHead({ state, onMargin }: { state: SheetState; onMargin: () => void }) {
  const { view, sheet } = state;
  const { build, evaluation } = view;
  return (
    <div className="flex flex-wrap items-end gap-x-6 gap-y-1 border-b px-4 pt-3 pb-2 border-base-content">
      <label className="min-w-[min(100%,27rem)] flex-1">
        <span className="label">What is this build for?</span>
        <input
          className="w-full border-0 bg-transparent text-2xl leading-tight font-semibold focus:outline-none"
          value={sheet.subject}
          maxLength={200}
          placeholder="Install … on …"
          onChange={(e) => state.edit({ subject: e.target.value })}
        />
      </label>
      <div className="flex items-center gap-3 pb-1 text-[0.93rem]">
        <SaveState draft={state} savedAt={build.updatedAt} timeZone={view.context.site?.timeZone ?? "UTC"} />
        <Link className="link" href={`/builds/${build.id}/history`}>
          History
        </Link>
        <button type="button" className="link sheet:hidden" onClick={onMargin}>
          Findings ({evaluation.findings.length})
        </button>
      </div>
    </div>
  );
}

const StageView = memo(function StageView({ zone, props }: { zone: Zone; props: ZoneProps }) {
  const View = STAGE_VIEWS[zone];
  return View ? <View {...props} /> : null;
});

/** The title block is the only place of primary actions, and says why one is not possible yet. */
function Foot({ view, saved, actions }: { view: BuildView; saved: boolean; actions: BuildActions }) {
  const router = useRouter();
  const [problems, setProblems] = useState<{ message: string }[]>([]);
  const { build, evaluation, run } = view;
  const { stops } = evaluation;
  const issued = build.revision !== null && build.revisionVersion === build.version;
  const revision =
    build.revision === null ? "not issued" : issued ? build.revision : `${build.revision}, changed since`;
  const blocked =
    stops.length > 0
      ? `${stops.length} ${stops.length === 1 ? "blocker" : "blockers"}: ${stops
          .slice(0, 6)
          .map((s) => s.label)
          .join(", ")}${stops.length > 6 ? " …" : ""}`
      : null;

  const issue = async () => {
    const answer = await actions.issue(build.id, build.version);
    if (answer.ok) location.reload();
    else setProblems(answer.problems);
  };
  const start = async () => {
    const answer = await actions.start(build.id, build.version);
    if (answer.ok) router.push(`/runs/${answer.value}`);
    else setProblems(answer.problems);
  };
  useKeys("x", () => document.querySelector<HTMLElement>("[data-main-action]")?.focus());

  return (
    <TitleBlock
      cells={[
        { label: "Sheet", value: build.number, mono: true },
        { label: "Subject", value: build.sheet.subject || "–", grow: true },
        { label: "Revision", value: revision },
        { label: "Site", value: view.context.site?.name ?? "–" },
        { label: "State", value: run ? (run.endedAt ? "handed over" : "running") : (blocked ?? "ready") },
      ]}
    >
      {problems.length > 0 && (
        <span role="alert" className="max-w-80 text-error">
          {problems[0]?.message}
        </span>
      )}
      {run && (
        <Link
          className="btn btn-primary"
          data-main-action
          href={run.endedAt ? `/runs/${run.id}/record` : `/runs/${run.id}`}
        >
          {run.endedAt ? "Open record" : "Open run"}
        </Link>
      )}
      {!issued && (
        <button
          type="button"
          className={`btn ${run ? "" : "btn-primary"}`}
          data-main-action={run ? undefined : true}
          disabled={!saved}
          onClick={issue}
        >
          Issue revision
        </button>
      )}
      {(!run || run.endedAt) && issued && (
        <button
          type="button"
          className="btn btn-primary"
          data-main-action
          disabled={!saved || stops.length > 0 || evaluation.steps.length === 0}
          onClick={start}
          title={blocked ?? undefined}
        >
          Start run
        </button>
      )}
    </TitleBlock>
  );
}
