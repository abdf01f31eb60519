import { homeZone } from "@/server/sites";
import { formatDate } from "@/core/units";
import { driveRegister } from "@/server/drives";
import { AddDrive } from "@/ui/drives/add-drive";
import { DriveRegister, type DriveLine } from "@/ui/drives/register";
import { Page } from "@/ui/frame/page";
import { MACHINE_SHEETS, SubSheets } from "@/ui/frame/sub-sheets";
import { addDrive } from "../actions";
import { desk } from "../../desk";

export const dynamic = "force-dynamic";
export const metadata = { title: "Drives" };

export default async function Drives() {
  const own = await desk();
  const zone = await homeZone(own);
  const lines = (await driveRegister(own)).map(({ key, entry, where, verdict, reasons, wear }): DriveLine => {
    const wipe = entry.wipes.at(-1);
    return {
      id: key,
      label: entry.label,
      serial: entry.serial ?? "",
      model: entry.model ?? "",
      media: entry.media,
      sizeBytes: entry.sizeBytes,
      verdict,
      reasons: reasons.join("; "),
      wear,
      where,
      spare: entry.spare,
      holds: entry.holds,
      erased: wipe ? `erased ${formatDate(wipe.at, zone)}, ${wipe.method}` : "",
    };
  });
  return (
    <Page
      title="Drives, USB sticks and cards"
      aside={
        <div className="flex flex-wrap gap-2">
          {lines.length > 0 && (
            <a className="btn" href="/api/v1/drives.csv" download="drives.csv">
              Export CSV
            </a>
          )}
          <AddDrive add={addDrive} />
        </div>
      }
    >
      <SubSheets sheets={MACHINE_SHEETS} open="/machines/drives" />
      <DriveRegister drives={lines} />
    </Page>
  );
}
