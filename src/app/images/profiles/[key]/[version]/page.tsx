import { notFound } from "next/navigation";
import { formatBinaryBytes, formatBytes, formatDuration } from "@/core/units";
import { profileView } from "@/server/profiles";
import { Page, Ruled } from "@/ui/frame/page";
import { ProfileImport } from "@/ui/image/profile-import";
import { TitleBlock } from "@/ui/frame/title-block";
import { keepProfile } from "../../../actions";

export const dynamic = "force-dynamic";

export default async function ProfilePage({ params }: { params: Promise<{ key: string; version: string }> }) {
  const { key, version } = await params;
  const view = await profileView(decodeURIComponent(key), decodeURIComponent(version));
  if (!view) notFound();
  const { profile, yaml } = view;
  const { requirements: r } = profile;
  return (
    <>
      <Page title={`${profile.name} ${profile.version}`} lead={profile.family}>
        <Ruled title="Requirements">
          <table className="ruled max-w-3xl">
            <thead>
              <tr>
                <th></th>
                <th>Least</th>
                <th>Recommended</th>
              </tr>
            </thead>
            <tbody>
              <tr>
                <td>Memory</td>
                <td className="value">{formatBinaryBytes(r.memoryBytes.least)}</td>
                <td className="value">{formatBinaryBytes(r.memoryBytes.recommended)}</td>
              </tr>
              <tr>
                <td>Disk</td>
                <td className="value">{formatBytes(r.diskBytes.least)}</td>
                <td className="value">{formatBytes(r.diskBytes.recommended)}</td>
              </tr>
              <tr>
                <td>Cores</td>
                <td className="value">{r.cores.least}</td>
                <td className="value">{r.cores.recommended}</td>
              </tr>
              <tr>
                <td>Virtualisation</td>
                <td colSpan={2}>{r.virtualisation}</td>
              </tr>
            </tbody>
          </table>
        </Ruled>
        <Ruled title="Screens, in order">
          <ol>
            {[...profile.screens, ...profile.firstBoot].map((s, i) => (
              <li
                key={s.id}
                className="grid grid-cols-[2rem_minmax(0,1fr)_auto] gap-2 border-b py-1"
                style={{ borderColor: "var(--color-base-300)" }}
              >
                <span className="value quiet text-right">{i + 1}</span>
                <span>
                  {s.title}
                  {s.destroys && (
                    <strong style={{ color: "var(--color-error)" }}> – erases the target</strong>
                  )}
                  {s.when !== "always" && <span className="quiet"> – {s.when} only</span>}
                </span>
                <span className="value">
                  {formatDuration(s.likely)} … {formatDuration(s.late)}
                </span>
              </li>
            ))}
          </ol>
        </Ruled>
        <details>
          <summary className="link-quiet cursor-pointer">Change it as YAML</summary>
          <ProfileImport initial={yaml} save={keepProfile} />
        </details>
      </Page>
      <TitleBlock
        cells={[
          { label: "Profile", value: `${profile.name} ${profile.version}` },
          { label: "Installer", value: profile.installer },
          { label: "Passwords", value: profile.passwords.words, grow: true },
          { label: "Evaluation", value: profile.evaluationDays ? `${profile.evaluationDays} days` : "none" },
        ]}
      />
    </>
  );
}
