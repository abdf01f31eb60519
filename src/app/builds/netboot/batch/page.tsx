import Link from "next/link";
import { batchOffers, turnsOf } from "@/server/netboot/batch";
import { Page } from "@/ui/frame/page";
import { BatchForm } from "@/ui/netboot/batch-form";
import { desk } from "../../../desk";
import { armSome } from "../actions";

export const dynamic = "force-dynamic";
export const metadata = { title: "Arm several machines" };

export default async function BatchPage() {
  const at = await desk();
  const rows = await batchOffers(at);
  return (
    <Page
      title="Arm several machines"
      lead="Each by the end of its own serial number, read at the machine. Those that nothing is typed for stay as they are."
      aside={
        <Link className="btn" href="/builds/netboot">
          The board
        </Link>
      }
    >
      {rows.length === 0 ? (
        <p className="quiet">
          No sheet waits to be armed: one that does goes by network in zone B, at a site where network boot is
          on.
        </p>
      ) : (
        <BatchForm
          rows={rows.map(({ build, number, machine, offer, problems }) => ({
            ...{ build, number, machine, problems },
            ready: offer && {
              tail: offer.tail,
              secrets: offer.secrets,
              image: offer.arming.image.name,
              erases: offer.arming.erases.map(
                ({ look, serial, holds }) => `${look}, serial ${serial || "not read"}: ${holds}`,
              ),
            },
          }))}
          turns={await turnsOf(at, rows)}
          arm={armSome}
        />
      )}
    </Page>
  );
}
