import Link from "next/link";
import { isClosed, STAGES } from "@/core/netboot";
import { bootBoard } from "@/server/netboot/board";
import { KeepFresh } from "@/ui/frame/keep-fresh";
import { Page, Ruled } from "@/ui/frame/page";
import { DhcpTexts } from "@/ui/netboot/dhcp-texts";
import { boardLine } from "@/ui/netboot/board-line";
import { BootBoard, Strangers } from "@/ui/netboot/boot-board";
import { desk } from "../../desk";
import { cancel } from "./actions";

export const dynamic = "force-dynamic";
export const metadata = { title: "Network boot" };

export default async function NetbootPage() {
  const { url, rows, strangers, networks } = await bootBoard(await desk());
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
        <Link className="btn" href="/builds">
          Back to the sheets
        </Link>
      }
    >
      <KeepFresh running={rows.some(({ state }) => !isClosed(state))} />
      <Ruled title="Armed machines">
        {rows.length > 0 ? (
          <BootBoard lines={rows.map(boardLine)} stages={STAGES} cancel={cancel} />
        ) : (
          <p className="quiet">No machine was armed yet. A sheet&rsquo;s zone H leads to it.</p>
        )}
      </Ruled>
      <Ruled title="Asked, and armed by nobody">
        {strangers.length > 0 ? (
          <Strangers
            strangers={strangers.flatMap(({ mac, times, machine, last: { at, event } }) =>
              event.kind === "asked" ? [{ mac, times, at, machine, caller: event.caller }] : [],
            )}
          />
        ) : (
          <p className="quiet">No machine has asked that was not armed.</p>
        )}
      </Ruled>
      {url && <DhcpTexts script={`${url}/boot.ipxe`} networks={networks} />}
    </Page>
  );
}
