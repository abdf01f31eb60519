import { buildBasis, type Procedure } from "@/core/procedure";
import { NOTHING_TO_PUT_BACK } from "@/core/work";
import { logInsOf, type RunState } from "@/core/run";
import { formatClock } from "@/core/units";

/** Power, media, next boot and the target: always in view, each as word and mark. */
export function StateStrip({ state, plan }: { state: RunState; plan: Procedure }) {
  const { strip } = state;
  // The names of image and drive tell version and size, which a person reads from the console at such a gate.
  const isAsked = plan.steps[state.current]?.kind === "read back";
  const target = buildBasis(plan)?.drives.target ?? [];
  const open = logInsOf(plan, state).filter((l) => l.since !== null && l.changed === null);
  const risky = strip.target === "at risk" || strip.target === "erased";
  const loud = { color: "var(--color-error)" };
  return (
    <div
      className="sticky top-[2.4rem] z-10 mt-2 border-y-2 bg-base-100 py-1.5 border-base-content"
      aria-label="State of the machine"
    >
      <dl className="flex flex-wrap gap-x-5 gap-y-0.5">
        <Cell label="Power" value={strip.power} />
        <Cell
          label="Media"
          value={isAsked && strip.media !== "none" ? "in place" : strip.media}
          style={strip.media !== "none" && strip.target === "installed" ? loud : undefined}
        />
        <Cell
          label="Next boot"
          value={strip.nextBoot}
          style={strip.nextBoot.startsWith("always") ? loud : undefined}
        />
        {strip.firmware !== NOTHING_TO_PUT_BACK && (
          <Cell
            label="To undo"
            value={strip.firmware}
            style={strip.target === "installed" ? loud : undefined}
          />
        )}
        {open.map(({ name, since }) => (
          <Cell
            key={name}
            label="Default login still active"
            value={`${name}, since ${formatClock(since ?? "", plan.site.timeZone)}`}
            style={loud}
          />
        ))}
        <Cell label="Target" value={strip.target} style={risky ? loud : undefined} />
      </dl>
      {target.length > 0 && !isAsked && (
        <p className="value text-[0.86rem]">{target.map((d) => d.look).join(" and ")}</p>
      )}
    </div>
  );
}

function Cell({ label, value, style }: { label: string; value: string; style?: React.CSSProperties }) {
  return (
    <div className="flex items-baseline gap-1.5">
      <dt className="label">{label}</dt>
      <dd className="value font-semibold" style={style}>
        {value}
      </dd>
    </div>
  );
}
