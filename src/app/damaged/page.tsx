import { damagedDocuments } from "@/server/damaged";
import { DamagedDocument } from "@/ui/damaged/damaged-document";
import { Page, Ruled } from "@/ui/frame/page";
import { repair, setAside } from "./actions";
import { desk } from "../desk";

export const dynamic = "force-dynamic";
export const metadata = { title: "Damaged documents" };

export default async function DamagedPage() {
  const all = await damagedDocuments(await desk());
  const [open, aside] = [all.filter((d) => !d.setAside), all.filter((d) => d.setAside)];
  return (
    <Page
      title="Damaged documents"
      lead={
        all.length === 0
          ? "All documents of this installation are valid."
          : "These documents cannot be read in their expected format. They are left out of all lists; nothing else is affected. Each is preserved unchanged until it is repaired."
      }
    >
      {open.map((d) => (
        <DamagedDocument key={`${d.kind}-${d.id}`} damaged={d} repair={repair} setAside={setAside} />
      ))}
      {aside.length > 0 && (
        <Ruled title="Quarantined">
          {aside.map((d) => (
            <DamagedDocument key={`${d.kind}-${d.id}`} damaged={d} repair={repair} setAside={setAside} />
          ))}
        </Ruled>
      )}
    </Page>
  );
}
