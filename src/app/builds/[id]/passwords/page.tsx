import Link from "next/link";
import { notFound } from "next/navigation";
import { passwordsView } from "@/server/passwords";
import { PasswordBench } from "@/ui/build/password-bench";
import { Page, Ruled } from "@/ui/frame/page";
import { orDamaged } from "../../../or-damaged";
import { desk } from "../../../desk";

export const dynamic = "force-dynamic";
export const metadata = { title: "Passwords" };

export default async function PasswordsPage({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  const view = await orDamaged(passwordsView(await desk(), id));
  if (!view) notFound();
  return (
    <Page
      title="Passwords"
      lead={`${view.number}${view.subject ? `, ${view.subject}` : ""}. ${view.ruleWords}`}
      aside={
        <Link className="btn" href={`/builds/${id}#zone-F`}>
          Back to the sheet
        </Link>
      }
    >
      <PasswordBench view={view} />
      {view.defaultLogins.length > 0 && (
        <Ruled title="Log-ins that exist before anybody chose one" note="each is changed on its screen">
          <ul>
            {view.defaultLogins.map(({ name, opens }) => (
              <li key={name + opens}>
                <span className="value">{name}</span> opens {opens}
              </li>
            ))}
          </ul>
        </Ruled>
      )}
    </Page>
  );
}
