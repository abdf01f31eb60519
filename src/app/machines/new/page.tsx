import { listSites } from "@/server/sites";
import { CopyValue } from "@/ui/frame/copy-value";
import { Page } from "@/ui/frame/page";
import { NewMachine } from "@/ui/machine/new-machine";
import { addMachine } from "../actions";
import { desk } from "../../desk";

export const dynamic = "force-dynamic";
export const metadata = { title: "Add a machine" };

export default async function NewMachinePage() {
  const sites = await listSites(await desk());
  return (
    <Page title="Add a machine" lead="Hardware data is imported, not typed.">
      <p className="mb-2">
        On any live system of the machine, as root if possible:{" "}
        <CopyValue value="sh collect.sh > bundle.txt" />, with{" "}
        <a className="link" href="/collect.sh" download="collect.sh">
          collect.sh
        </a>{" "}
        (on a BSD system{" "}
        <a className="link" href="/collect-bsd.sh" download="collect-bsd.sh">
          collect-bsd.sh
        </a>
        ). It only reads. Output of single tools is accepted too.
      </p>
      <NewMachine sites={sites.map((s) => ({ id: s.id, name: s.site.name }))} create={addMachine} />
    </Page>
  );
}
