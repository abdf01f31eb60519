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
export const metadata = { title: "Network boot" };

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
      title="Network boot"
      lead={
        url ? (
          <>
            Machines are pointed at <span className="value">{url}/boot.ipxe</span> by the site&rsquo;s own
            DHCP server. One that was armed is installed once; every other starts from its own disk.
          </>
        ) : (
          "The boot service is off: it listens where DERRICK_BOOT_URL says, and this server was started without it."
        )
      }
      aside={
        <div className="flex gap-2">
          <Link className="btn" href="/builds/netboot/batch">
            Arm several
          </Link>
          <Link className="btn" href="/builds">
            Back to the sheets
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
                {older} more {older === 1 ? "was" : "were"} armed before these;{" "}
                {older === 1 ? "its" : "their"} time ended more than a day ago.
              </p>
            )}
          </>
        ) : (
          <p className="quiet">No machine was armed yet. A sheet&rsquo;s zone H leads to it.</p>
        )}
      </Ruled>
      <Ruled title="Asked, and armed by nobody">
        {strangers.length > 0 ? (
          <Strangers
            inAll={strangersInAll}
            {...{ sites, adopt }}
            strangers={strangers.flatMap(({ mac, times, machine, last: { at, event } }) =>
              event.kind === "asked" ? [{ mac, times, at, machine, caller: event.caller }] : [],
            )}
          />
        ) : (
          <p className="quiet">No machine has asked that was not armed.</p>
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
        <FigureValue text={`${figure.value} at once`} figure={figure} /> are let in; who asks beyond that
        waits its turn. {open.length} {open.length === 1 ? "machine is" : "machines are"} not done:{" "}
        {rounds === 1 ? "one round" : `${rounds} rounds`} of {formatDuration(each)}, so{" "}
        {formatDuration(roundsSeconds(open.length, figure.value, each))} in all.
      </p>
      {late.length > 0 && (
        <p className="mb-2 font-semibold text-warning">
          The time of {late.slice(0, MOST_NAMES).join(", ")}
          {late.length > MOST_NAMES && ` and ${late.length - MOST_NAMES} more`} ends before{" "}
          {late.length === 1 ? "its" : "their"} turn is likely: call {late.length === 1 ? "it" : "them"} off,
          and arm {late.length === 1 ? "it" : "them"} for longer.
        </p>
      )}
    </>
  );
}
