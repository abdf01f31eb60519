import Link from "next/link";
import { intakeList } from "@/server/intake-list";
import { IntakeTable } from "@/ui/build/intake-table";
import { Page } from "@/ui/frame/page";
import { desk } from "../../desk";

export const dynamic = "force-dynamic";
export const metadata = { title: "What will be asked" };

export default async function IntakePage() {
  const lines = await intakeList(await desk());
  const open = lines.filter((l) => l.asked === null || l.open.length > 0).length;
  return (
    <Page
      title="What will be asked"
      lead={
        lines.length === 0
          ? "No sheet waits for its installation."
          : `Every answer that installers and first starts will want, for the sheets that are not running yet. ${open === 0 ? "All of them are complete." : `${open} of ${lines.length} lack something.`}`
      }
      aside={
        <Link className="btn" href="/builds">
          Back to the sheets
        </Link>
      }
    >
      <IntakeTable lines={lines} />
    </Page>
  );
}
