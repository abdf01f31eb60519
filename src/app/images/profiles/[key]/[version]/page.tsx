import Link from "next/link";
import { notFound } from "next/navigation";
import { draftFamily, type OwnFamily } from "@/core/image";
import { formatDay } from "@/core/units";
import { imageView } from "@/server/images";
import { profileView } from "@/server/profiles";
import { Page, Ruled } from "@/ui/frame/page";
import { TitleBlock } from "@/ui/frame/title-block";
import { ProfileFacts } from "@/ui/profile/profile-facts";
import { ProfileForm } from "@/ui/profile/profile-form";
import { ProfileImport } from "@/ui/profile/profile-import";
import { MakeItMine } from "@/ui/profile/make-mine";
import { keepProfile, keepProfileFields, makeItMine, previewOf } from "../../../actions";
import { desk } from "../../../../desk";
import { Day } from "@/ui/frame/person";

export const dynamic = "force-dynamic";

export async function generateMetadata({ params }: { params: Promise<{ key: string; version: string }> }) {
  const { key, version } = await params;
  return { title: `${decodeURIComponent(key)} ${decodeURIComponent(version)} – OS profile` };
}

/** What a family of one's own begins with: what the image says that is to be of it. */
async function ownBegun(imageId: string | null): Promise<OwnFamily> {
  const view = imageId === null ? null : await imageView(await desk(), imageId);
  return draftFamily(view?.image ?? null);
}

export default async function ProfilePage({
  params,
  searchParams,
}: {
  params: Promise<{ key: string; version: string }>;
  searchParams: Promise<{ edition?: string; form?: string; image?: string; mine?: string }>;
}) {
  const { key, version } = await params;
  const { edition: wanted, form, image, mine } = await searchParams;
  const asked = Number(wanted);
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
        lead={`${profile.family}; answers by ${profile.answerFile === "none" ? "answer card" : profile.answerFile}; support ${profile.support.ends ? `until ${formatDay(profile.support.ends)}` : profile.support.channel}`}
        aside={
          <div className="flex gap-2">
            <a className="btn" href={`/api/v1/profiles/${key}/${version}?edition=${edition}`} download>
              Download YAML
            </a>
            <Link className="btn" href={`${here}?mine=yes`}>
              Duplicate and edit
            </Link>
            <Link className="btn" href={`/images/profiles/new?from=${key}&version=${version}`}>
              Duplicate as another version
            </Link>
          </div>
        }
      >
        {edition < newest && (
          <p className="mb-4 border-l-4 pl-3 border-warning">
            Profile revision {edition}; the newest is{" "}
            <Link className="link" href={here}>
              revision {newest}
            </Link>
            .
          </p>
        )}
        {(mine || image) && (
          <Ruled title="Duplicate and edit" note="an OS family of your own that is installed like this one">
            <MakeItMine
              begun={await ownBegun(image ?? null)}
              make={makeItMine.bind(null, view.key, view.version, image ?? null)}
            />
          </Ruled>
        )}
        {form !== "open" && <ProfileFacts profile={profile} />}
        {edition === newest && (
          <Ruled
            title="Edit"
            note="saving creates the next profile revision; build sheets keep theirs until you select the new one"
          >
            <details open={form === "open"}>
              <summary className="link cursor-pointer">Edit in a form (shows the resulting steps)</summary>
              <ProfileForm
                key={`${key} ${version}`}
                previewOf={previewOf}
                profile={profile}
                edition={edition}
                save={keepProfileFields.bind(null, view.key, view.version)}
              />
            </details>
            <details className="mt-2">
              <summary className="link cursor-pointer">Edit as YAML</summary>
              <ProfileImport key={edition} initial={yaml} save={keepProfile} />
            </details>
          </Ruled>
        )}
        <Editions {...{ editions, edition, here }} />
      </Page>
      <TitleBlock
        cells={[
          { label: "Profile", value: `${profile.name} ${profile.version}` },
          { label: "Revision", value: `${edition}${by ? `, ${by}` : ""}` },
          { label: "Installer", value: profile.installer, grow: true },
          {
            label: "Evaluation period",
            value: profile.evaluationDays ? `${profile.evaluationDays} days` : "none",
          },
        ]}
      />
    </>
  );
}

function Editions({
  editions,
  edition,
  here,
}: {
  editions: NonNullable<Awaited<ReturnType<typeof profileView>>>["editions"];
  edition: number;
  here: string;
}) {
  return (
    <Ruled title="Revisions">
      <ul>
        {editions.map((e) => (
          <li key={e.edition}>
            <Link
              className={e.edition === edition ? "font-semibold" : "link"}
              href={`${here}?edition=${e.edition}`}
            >
              Revision {e.edition}
            </Link>
            <span className="quiet">
              , <Day at={e.updatedAt} />, {e.by || "included with Derrick"}
            </span>
          </li>
        ))}
      </ul>
    </Ruled>
  );
}
