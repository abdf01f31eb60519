import Link from "next/link";
import type { Figure } from "@/core/estimate";
import { isClosed, outOfTime, roundsSeconds, STAGES } from "@/core/netboot";
import { formatDuration } from "@/core/units";
import { ALL_STRANGERS, bootBoard, type BoardRow } from "@/server/netboot/board";
import { bootTrust } from "@/server/netboot/certificate";
import { FigureValue } from "@/ui/fields/figure-value";
import { KeepFresh } from "@/ui/frame/keep-fresh";
import { Page, Ruled } from "@/ui/frame/page";
import { DhcpTexts } from "@/ui/netboot/dhcp-texts";
import { boardLine } from "@/ui/netboot/board-line";
import { BootBoard } from "@/ui/netboot/boot-board";
import { OverHttps } from "@/ui/netboot/over-https";
import { Strangers } from "@/ui/netboot/strangers";
import { desk } from "../../desk";
import { adopt, cancel } from "./actions";

export const dynamic = "force-dynamic";
export const metadata = { title: "Network installations" };

export default async function NetbootPage({
  searchParams,
}: {
  searchParams: Promise<Record<string, string | string[] | undefined>>;
}) {
  const most = (await searchParams)["asked"] === "all" ? ALL_STRANGERS : undefined;
  const { url, rows, older, strangers, strangersInAll, sites, networks, atOnce, now } = await bootBoard(
    await desk(),
    most,
  );
  const trust = bootTrust();
  return (
    <Page
      title="Network installations"
      lead={
        url ? (
          <>
            Machines are directed to <span className="value">{url}/boot.ipxe</span> by the DHCP server of the
            site. An armed machine is installed once; all other machines boot from their own disk.
          </>
        ) : (
          "The boot service is off. Start Derrick with DERRICK_BOOT_URL to turn it on."
        )
      }
      aside={
        <div className="flex gap-2">
          <Link className="btn" href="/builds/netboot/batch">
            Arm several machines
          </Link>
          <Link className="btn" href="/builds">
            Back to the build sheets
          </Link>
        </div>
      }
    >
      <KeepFresh running={rows.some(({ state }) => !isClosed(state))} />
      <Ruled title="Armed machines">
        {atOnce && <AtOnce {...{ rows, now }} figure={atOnce} />}
        {rows.length > 0 ? (
          <>
            <BootBoard lines={rows.map((row) => boardLine(row, url))} stages={STAGES} cancel={cancel} />
            {older > 0 && (
              <p className="quiet mt-2">
                {older} earlier {older === 1 ? "arming" : "armings"} ended more than a day ago and{" "}
                {older === 1 ? "is" : "are"} not listed.
              </p>
            )}
          </>
        ) : (
          <p className="quiet">No machine has been armed yet. Arm one in zone H of its build sheet.</p>
        )}
      </Ruled>
      <Ruled title="Boot requests from machines that are not armed">
        {strangers.length > 0 ? (
          <Strangers
            inAll={strangersInAll}
            {...{ sites, adopt }}
            strangers={strangers.flatMap(({ mac, times, machine, last: { at, event } }) =>
              event.kind === "asked" ? [{ mac, times, at, machine, caller: event.caller }] : [],
            )}
          />
        ) : (
          <p className="quiet">None.</p>
        )}
      </Ruled>
      {trust && <OverHttps {...trust} />}
      {url && <DhcpTexts script={`${url}/boot.ipxe`} networks={networks} />}
    </Page>
  );
}

const MOST_NAMES = 5;

/** How many are let in at once, with its working, and how long the open ones take in rounds of so many. */
function AtOnce({ figure, rows, now }: { figure: Figure; rows: readonly BoardRow[]; now: string }) {
  const open = rows.filter(({ state }) => !isClosed(state));
  const each = Math.max(...open.map(({ arming }) => arming.likelySeconds));
  const rounds = Math.ceil(open.length / figure.value);
  const late = outOfTime(open, figure.value, now).map(({ arming }) => arming.machine.name);
  return (
    <>
      <p className="mb-2">
        <FigureValue text={`Up to ${figure.value} machines`} figure={figure} /> install at the same time;
        others are queued. {open.length} {open.length === 1 ? "machine is" : "machines are"} waiting:{" "}
        {rounds === 1 ? "one batch" : `${rounds} batches`} of {formatDuration(each)}, so{" "}
        {formatDuration(roundsSeconds(open.length, figure.value, each))} in all.
      </p>
      {late.length > 0 && (
        <p className="mb-2 font-semibold text-warning">
          The arming of {late.slice(0, MOST_NAMES).join(", ")}
          {late.length > MOST_NAMES && ` and ${late.length - MOST_NAMES} more`} expires before{" "}
          {late.length === 1 ? "its" : "their"} expected turn: cancel it and arm again for longer.
        </p>
      )}
    </>
  );
}
