import Link from "next/link";
import { isGuard, type Operation } from "@/core/work";
import { formatDuration } from "@/core/units";
import { FigureValue } from "../fields/figure-value";
import type { ZoneProps } from "./zone-props";

export function RunZone({ view }: Pick<ZoneProps, "view">) {
  const { steps, totals } = view.evaluation;
  if (steps.length === 0)
    return <p className="quiet">Choose a machine and an image with a known OS profile to see the steps.</p>;
  return (
    <div className="space-y-3">
      <p>
        <strong className="text-[1.15rem]">{formatDuration(totals.likelySeconds)}</strong> expected, up to{" "}
        <strong>{formatDuration(totals.lateSeconds)}</strong>; attended {formatDuration(totals.handsSeconds)},
        unattended {formatDuration(totals.waitSeconds)}.<span className="quiet"> {ownRunWords(steps)}</span>
      </p>
      <TimeStrip steps={steps} />
      <p>
        <Link className="link" href={`/builds/${view.build.id}/card`}>
          Answer card
        </Link>
        <span className="quiet">
          : the installer&rsquo;s screens on one page, for paper or next to the console
        </span>
      </p>
      {view.context.profile?.netboot && (
        <p>
          <Link className="link" href={`/builds/${view.build.id}/arm`}>
            Arm for network boot
          </Link>
          <span className="quiet">: one unattended installation</span>
        </p>
      )}
      <details>
        <summary className="link cursor-pointer">All {steps.length} steps</summary>
        <ol className="mt-2">
          {steps.map((s, i) => (
            <li
              key={s.id}
              className="grid grid-cols-[2rem_1.5rem_minmax(0,1fr)_fit-content(60%)] gap-2 border-b py-1 border-base-300"
            >
              <span className="value quiet text-right">{i + 1}</span>
              <span className="value font-semibold">{s.zone}</span>
              <span>
                {isGuard(s) && <span className="label mr-1 border px-1">guard</span>}
                {s.title} <span className="quiet text-[0.86rem]">{s.place}</span>
              </span>
              <span className="text-right">
                {s.figure ? (
                  <FigureValue text={formatDuration(s.duration.likelySeconds)} figure={s.figure} />
                ) : (
                  <span className="value">{formatDuration(s.duration.likelySeconds)}</span>
                )}
                <span className="quiet value"> –{formatDuration(s.duration.lateSeconds)}</span>
              </span>
            </li>
          ))}
        </ol>
      </details>
    </div>
  );
}

const stepWords = (step: Operation): string =>
  `${step.title}, ${step.kind === "wait" ? "a wait of " : isGuard(step) ? "a guard, " : ""}${formatDuration(step.duration.likelySeconds)}`;

/** The run on one scale of likely time: hands-on solid, waiting hatched, a guard as a thick mark. */
export function TimeStrip({ steps }: { steps: Operation[] }) {
  return (
    <div
      className="flex h-6 w-full"
      role="img"
      aria-label={`Timeline of the run, ${steps.length} steps: ${steps.map(stepWords).join("; ")}`}
    >
      {steps.map((s) => (
        <span
          key={s.id}
          title={`${s.title}: ${formatDuration(s.duration.likelySeconds)}`}
          className={`h-full border-r ${s.kind === "wait" ? "hatched border-y border-current" : "border-base-100"} ${s.kind === "wait" || isGuard(s) ? "" : "bg-current"}`}
          style={{
            flexGrow: Math.max(s.duration.likelySeconds, 12),
            flexBasis: 0,
            background: isGuard(s) ? "var(--color-error)" : undefined,
            opacity: s.kind === "wait" || isGuard(s) ? 1 : 0.8,
          }}
        />
      ))}
    </div>
  );
}

/** How much of the time is the fleet's own: which waits were measured in own runs, or by the rate of own transfers. */
function ownRunWords(steps: readonly Operation[]): string {
  const waits = steps.filter((s) => s.kind === "wait");
  const isOwn = (s: Operation): boolean =>
    s.runs > 0 || (s.figure?.inputs.some((i) => i.source === "measured") ?? false);
  const own = waits.filter(isOwn).length;
  if (own === 0) return "Based on defaults of the profile; no run of your own yet.";
  return `${own} of ${waits.length} waits are based on your own runs, the others on defaults of the profile.`;
}
