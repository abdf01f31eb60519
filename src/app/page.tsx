import Link from "next/link";
import { isFirstDay } from "@/server/first-day";
import { todayView } from "@/server/today";
import type { DueDate } from "@/core/record";
import { formatClock, formatDuration } from "@/core/units";
import { AlarmSettings } from "@/ui/frame/alarm-settings";
import { KeepFresh } from "@/ui/frame/keep-fresh";
import { NewBuild } from "@/ui/build/new-build";
import { Page, Ruled } from "@/ui/frame/page";
import { Signal } from "@/ui/frame/signal";
import { boardLine } from "@/ui/netboot/board-line";
import { Installing } from "@/ui/today/installing";
import { HandsLine } from "@/ui/today/hands-line";
import { FirstDay } from "@/ui/today/first-day";
import { begin } from "./builds/actions";
import { lookAtDemo } from "./look";
import { beginFirstSheet } from "./machines/actions";
import { desk } from "./desk";
import { Day } from "@/ui/frame/person";

export const dynamic = "force-dynamic";
export const metadata = { title: { absolute: "Today – Derrick" } };

export default async function Today() {
  const own = await desk();
  const { now, running, installing, preparing, dates, damaged } = await todayView(own);
  if (damaged === 0 && (await isFirstDay(own))) return <FirstDay begin={beginFirstSheet} look={lookAtDemo} />;
  const next = running
    .flatMap((r) => (r.hands ? [{ ...r.hands, machine: r.machine }] : []))
    .sort((a, b) => a.at.localeCompare(b.at))[0];
  const lead = next
    ? next.at <= now
      ? `${next.machine} needs you now.`
      : `Next operator action: ${formatClock(next.at, running[0]?.timeZone ?? "UTC")}, ${next.machine}.`
    : "No build is running.";
  return (
    <Page title={lead} aside={<NewBuild begin={begin.bind(null, null)} />}>
      <KeepFresh running={running.length + installing.length > 0} />
      {damaged > 0 && (
        <p className="mb-4 border-l-4 bg-base-200 px-3 py-1.5 border-error">
          <Link className="link font-semibold" href="/damaged">
            {damaged === 1 ? "One document is" : `${damaged} documents are`} damaged
          </Link>{" "}
          and left out of all lists: review.
        </p>
      )}
      {running.length > 0 && (
        <section aria-label="Running builds" className="mb-8">
          <HandsLine rows={running} now={now} />
          <AlarmSettings />
        </section>
      )}
      <Installing lines={installing.map((row) => boardLine(row, null))} />
      <div className="grid gap-x-12 lg:grid-cols-[minmax(0,1.55fr)_minmax(0,1fr)]">
        <Ruled title="In preparation">
          {preparing.length === 0 && (
            <p className="quiet">
              No build sheet in preparation. Add a{" "}
              <Link className="link" href="/machines/new">
                machine
              </Link>
              , then create its build sheet.
            </p>
          )}
          <ul>
            {preparing.map((b) => (
              <li
                key={b.id}
                className="grid grid-cols-[4.4rem_minmax(0,1fr)] gap-3 border-b py-2 border-base-300"
              >
                <span className="value pt-0.5">{b.number}</span>
                <div>
                  <Link className="link font-semibold" href={`/builds/${b.id}`}>
                    {b.subject || "(no subject)"}
                  </Link>
                  <span className="quiet">
                    {" "}
                    {b.machine ?? "no machine"}
                    {b.revision ? `, rev ${b.revision}` : ""}
                    {b.likelySeconds > 0 ? `, ${formatDuration(b.likelySeconds)}` : ""}
                  </span>
                  <p className="flex items-start gap-1.5">
                    {b.firstStop ? (
                      <>
                        <span className="pt-0.5">
                          <Signal severity="stop" />
                        </span>
                        <span>
                          <span className="value font-semibold">{b.firstStop.label}</span> {b.firstStop.says}
                          {b.stops > 1 && <span className="quiet"> and {b.stops - 1} more</span>}
                        </span>
                      </>
                    ) : (
                      <span>
                        No blockers
                        {b.cautions > 0 ? `, ${b.cautions} ${b.cautions === 1 ? "warning" : "warnings"}` : ""}
                        . Next: {b.next}.
                      </span>
                    )}
                  </p>
                </div>
              </li>
            ))}
          </ul>
        </Ruled>
        <div>
          {dates.over.length > 0 && (
            <Ruled title="Overdue">
              <Dates dates={dates.over} past />
            </Ruled>
          )}
          <Ruled title="Upcoming">
            {dates.coming.length === 0 && <p className="quiet">No upcoming dates.</p>}
            <Dates dates={dates.coming} />
            {dates.more > 0 && <p className="quiet pt-1">and {dates.more} later</p>}
          </Ruled>
        </div>
      </div>
    </Page>
  );
}

function Dates({ dates, past = false }: { dates: DueDate[]; past?: boolean }) {
  return (
    <ul>
      {dates.map((d) => (
        <li
          key={d.date + d.what}
          className="grid grid-cols-[8rem_minmax(0,1fr)] gap-3 border-b py-1.5 border-base-300"
        >
          <span className="value" style={past ? { color: "var(--color-error)" } : undefined}>
            <Day at={d.date} />
          </span>
          <Link className="link" href={d.href}>
            {d.what}
          </Link>
        </li>
      ))}
    </ul>
  );
}
