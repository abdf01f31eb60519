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
      lead="Type the last characters of each serial number, read at the machine. Machines with an empty field are not armed."
      aside={
        <Link className="btn" href="/builds/netboot">
          Network installations
        </Link>
      }
    >
      {rows.length === 0 ? (
        <p className="quiet">
          No build sheet is ready to be armed. A sheet can be armed when its boot source is network boot (zone
          B) and its site has network boot enabled.
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
                ({ look, serial, holds }) => `${look}, serial ${serial || "not collected"}: ${holds}`,
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
