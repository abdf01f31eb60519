import { notesWithMachines } from "@/server/compat";
import { listProfiles } from "@/server/profiles";
import { CompatNotes } from "@/ui/compat/notes";
import { Page } from "@/ui/frame/page";
import { MACHINE_SHEETS, SubSheets } from "@/ui/frame/sub-sheets";
import { addCompatNote, keepTrial, keepVerdict } from "../actions";
import { desk } from "../../desk";

export const dynamic = "force-dynamic";
export const metadata = { title: "Compatibility" };

export default async function Compatibility() {
  const [rows, profiles] = await Promise.all([notesWithMachines(await desk()), listProfiles(await desk())]);
  return (
    <Page title="Compatibility" lead="What works with which system, what does not, and what was tested.">
      <SubSheets sheets={MACHINE_SHEETS} open="/machines/compatibility" />
      <CompatNotes
        rows={rows}
        profiles={profiles.map(({ key, version, profile }) => ({ key, name: profile.name, version }))}
        add={addCompatNote}
        judge={keepVerdict}
        addTrial={keepTrial}
        start={null}
      />
    </Page>
  );
}
