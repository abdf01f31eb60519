import Link from "next/link";
import { intakeList } from "@/server/intake-list";
import { IntakeTable } from "@/ui/build/intake-table";
import { Page } from "@/ui/frame/page";
import { desk } from "../../desk";

export const dynamic = "force-dynamic";
export const metadata = { title: "Missing answers" };

export default async function IntakePage() {
  const lines = await intakeList(await desk());
  const open = lines.filter((l) => l.asked === null || l.open.length > 0).length;
  return (
    <Page
      title="Missing answers"
      lead={
        lines.length === 0
          ? "No build sheet is waiting for its installation."
          : `The values that installers and first boots ask for, for all build sheets that are not running yet. ${open === 0 ? "All are complete." : `${open} of ${lines.length} are incomplete.`}`
      }
      aside={
        <Link className="btn" href="/builds">
          Back to the build sheets
        </Link>
      }
    >
      <IntakeTable lines={lines} />
    </Page>
  );
}
