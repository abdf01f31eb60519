import Link from "next/link";
import { notFound } from "next/navigation";
import { passwordsView } from "@/server/passwords";
import { SecretParameters } from "@/ui/build/secret-parameters";
import { PasswordBench } from "@/ui/build/password-bench";
import { Page, Ruled } from "@/ui/frame/page";
import { orDamaged } from "../../../or-damaged";
import { desk } from "../../../desk";
import { sealValue } from "../../actions";
import { titled } from "../../../titled";

export const dynamic = "force-dynamic";
export const generateMetadata = titled("build", "Passwords");

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
          Back to the build sheet
        </Link>
      }
    >
      <PasswordBench view={view} />
      {view.parameters.length > 0 && (
        <Ruled
          title="Secret parameters"
          note="stored encrypted until the run ends; they are part of the files that are downloaded or given to the armed machine"
        >
          <SecretParameters
            names={view.parameters}
            known={view.secrets.known}
            seal={sealValue.bind(null, id)}
          />
        </Ruled>
      )}
      {view.defaultLogins.length > 0 && (
        <Ruled title="Default logins" note="each is changed on its own screen">
          <ul>
            {view.defaultLogins.map(({ name, opens }) => (
              <li key={name + opens}>
                <span className="value">{name}</span>: account {opens}
              </li>
            ))}
          </ul>
        </Ruled>
      )}
    </Page>
  );
}
