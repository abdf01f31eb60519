import Link from "next/link";
import { notFound } from "next/navigation";
import { profileView } from "@/server/profiles";
import { Page, Ruled } from "@/ui/frame/page";
import { TitleBlock } from "@/ui/frame/title-block";
import { ProfileFacts } from "@/ui/profile/profile-facts";
import { ProfileForm } from "@/ui/profile/profile-form";
import { ProfileImport } from "@/ui/profile/profile-import";
import { keepProfile, keepProfileFields } from "../../../actions";
import { desk } from "../../../../desk";

export const dynamic = "force-dynamic";

export default async function ProfilePage({
  params,
  searchParams,
}: {
  params: Promise<{ key: string; version: string }>;
  searchParams: Promise<{ edition?: string }>;
}) {
  const { key, version } = await params;
  const asked = Number((await searchParams).edition);
  const view = await profileView(
    await desk(),
    decodeURIComponent(key),
    decodeURIComponent(version),
    Number.isInteger(asked) && asked > 0 ? asked : null,
  );
  if (!view) notFound();
  const { profile, yaml, edition, editions, by } = view;
  const here = `/images/profiles/${key}/${version}`;
  const newest = editions[0]?.edition ?? edition;
  return (
    <>
      <Page
        title={`${profile.name} ${profile.version}`}
        lead={`${profile.family}; ${profile.installer} installer, answers from ${profile.answerFile === "none" ? "the answer card" : profile.answerFile}; support ${profile.support.ends ? `until ${profile.support.ends}` : profile.support.channel}`}
        aside={
          <div className="flex gap-2">
            <a className="btn" href={`/api/v1/profiles/${key}/${version}?edition=${edition}`} download>
              Save as YAML
            </a>
            <Link className="btn" href={`/images/profiles/new?from=${key}&version=${version}`}>
              Copy for another version
            </Link>
          </div>
        }
      >
        {edition < newest && (
          <p className="mb-4 border-l-4 pl-3 border-warning">
            This is edition {edition}; the newest is{" "}
            <Link className="link" href={here}>
              edition {newest}
            </Link>
            .
          </p>
        )}
        <ProfileFacts profile={profile} />
        {edition === newest && (
          <Ruled
            title="Change it"
            note="keeping it makes the next edition; sheets stay with theirs until you take the new one"
          >
            <details>
              <summary className="link cursor-pointer">In a form</summary>
              <ProfileForm
                profile={profile}
                edition={edition}
                save={keepProfileFields.bind(null, view.key, view.version)}
              />
            </details>
            <details className="mt-2">
              <summary className="link cursor-pointer">As YAML</summary>
              <ProfileImport key={edition} initial={yaml} save={keepProfile} />
            </details>
          </Ruled>
        )}
        <Ruled title="Editions">
          <ul>
            {editions.map((e) => (
              <li key={e.edition}>
                <Link
                  className={e.edition === edition ? "font-semibold" : "link"}
                  href={`${here}?edition=${e.edition}`}
                >
                  Edition {e.edition}
                </Link>
                <span className="quiet">
                  , {e.updatedAt.slice(0, 10)}, {e.by || "shipped with Derrick"}
                </span>
              </li>
            ))}
          </ul>
        </Ruled>
      </Page>
      <TitleBlock
        cells={[
          { label: "Profile", value: `${profile.name} ${profile.version}` },
          { label: "Edition", value: `${edition}${by ? `, ${by}` : ""}` },
          { label: "Installer", value: profile.installer, grow: true },
          { label: "Evaluation", value: profile.evaluationDays ? `${profile.evaluationDays} days` : "none" },
        ]}
      />
    </>
  );
}
