import type { CardScreen } from "@/core/answers";
import { formatDuration } from "@/core/units";
import { CopyValue } from "../frame/copy-value";

const TITLES = { installer: "The installer", "first start": "At first boot" };

/** The screens of an installer in their order, to be read while typing; on paper it takes two columns. */
export function AnswerCard({
  screens,
  current,
}: {
  screens: readonly CardScreen[];
  /** The screen that is at hand, beside a run; absent on paper. */
  current?: string | null;
}) {
  const parts = (["installer", "first start"] as const).map((after) => ({
    after,
    own: screens.filter((s) => s.after === after),
  }));
  return parts.map(
    ({ after, own }) =>
      own.length > 0 && (
        <section key={after} aria-label={TITLES[after]} className="mb-5">
          <h2 className="mb-2 border-b pb-0.5 text-[1.07rem] font-semibold border-base-content">
            {TITLES[after]}
          </h2>
          <ol
            className={current === undefined ? "gap-x-6 lg:columns-2 print:columns-2 print:text-[8.5pt]" : ""}
          >
            {own.map((screen, i) => (
              <CardBox key={screen.id} screen={screen} number={i + 1} isCurrent={screen.id === current} />
            ))}
          </ol>
        </section>
      ),
  );
}

function CardBox({ screen, number, isCurrent }: { screen: CardScreen; number: number; isCurrent: boolean }) {
  return (
    <li
      aria-current={isCurrent ? "step" : undefined}
      className={`mb-2 break-inside-avoid border p-2 print:mb-1 print:py-0.5 ${isCurrent ? "border-l-4 bg-base-200 border-primary" : "border-base-content/60"}`}
    >
      <h3 className="flex items-baseline gap-2 font-semibold">
        <span className="value quiet">{number}</span>
        {screen.title}
        {screen.waitSeconds > 0 && (
          <span className="quiet ml-auto font-normal whitespace-nowrap">
            {formatDuration(screen.waitSeconds)} unattended
          </span>
        )}
      </h3>
      {screen.hazards.map((h) => (
        <p key={h} className="font-semibold text-error">
          {h}
        </p>
      ))}
      <Lines head="On the screen" lines={screen.see} />
      <Lines head="Stop if you see" lines={screen.never} />
      <Lines head="Compare first" lines={screen.compare.length > 0 ? [screen.compare.join(" · ")] : []} />
      <Drives head="Drive to choose" drives={screen.drives} />
      <Drives head="Other drives" drives={screen.leaveAlone} />
      <Lines head="Actions" lines={screen.do} />
      {screen.lines.length > 0 && (
        <dl className="grid grid-cols-[8.5rem_1fr] gap-x-3">
          {screen.lines.map((t) => (
            <div key={t.label} className="contents">
              <dt className="label pt-0.5">{t.label}</dt>
              <dd>
                <CopyValue value={t.value} />
              </dd>
            </div>
          ))}
        </dl>
      )}
      <Lines head="Secret" lines={screen.secrets} />
      {screen.keys && <Lines head="Then press" lines={[screen.keys]} />}
      <Lines head="Looks wrong but is normal" lines={screen.normal.map((e) => `${e.looks}: ${e.means}`)} />
    </li>
  );
}

const Lines = ({ head, lines }: { head: string; lines: readonly string[] }) =>
  lines.length > 0 && (
    <div className="grid grid-cols-[8.5rem_1fr] gap-x-3">
      <span className="label pt-0.5">{head}</span>
      <ul>
        {lines.map((line) => (
          <li key={line}>{line}</li>
        ))}
      </ul>
    </div>
  );

/** Drives that hold the same stand together, so that a card for a shelf of them stays a card. */
function Drives({ head, drives }: { head: string; drives: CardScreen["drives"] }) {
  const [only, second] = drives;
  if (only && !second)
    return (
      <Lines
        head={head}
        lines={[
          `${only.name}${only.holds ? `; contents: ${only.holds}` : ""}. Compare its serial number on the screen.`,
        ]}
      />
    );
  const holds = [...new Set(drives.map((d) => d.holds))];
  const lines = holds.flatMap((held) => {
    const names = drives.filter((d) => d.holds === held).map((d) => d.name);
    if (held === "") return names;
    return names.length === 1 ? [`${names[0]}; contents: ${held}`] : [...names, `contents of each: ${held}`];
  });
  return (
    <Lines
      head={head}
      lines={lines.length > 0 ? [...lines, "Compare their serial numbers on the screen."] : []}
    />
  );
}
