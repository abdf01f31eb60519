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
          ? "Every document of this installation reads as it should."
          : "These do not read as what they should be, so they are left out of lists; nothing else is touched by them. Each is kept as it stands until somebody repairs it."
      }
    >
      {open.map((d) => (
        <DamagedDocument key={`${d.kind}-${d.id}`} damaged={d} repair={repair} setAside={setAside} />
      ))}
      {aside.length > 0 && (
        <Ruled title="Set aside">
          {aside.map((d) => (
            <DamagedDocument key={`${d.kind}-${d.id}`} damaged={d} repair={repair} setAside={setAside} />
          ))}
        </Ruled>
      )}
    </Page>
  );
}
