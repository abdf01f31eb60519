import Link from "next/link";
import { verificationOf } from "@/core/image";
import { formatBytes } from "@/core/units";
import { listImages } from "@/server/images";
import { listProfiles } from "@/server/profiles";
import { Page, Ruled } from "@/ui/frame/page";

export const dynamic = "force-dynamic";
export const metadata = { title: "Images" };

export default async function Images() {
  const [images, profiles] = await Promise.all([listImages(), listProfiles()]);
  return (
    <Page
      title="Images"
      aside={
        <div className="flex gap-2">
          <Link className="stamp" href="/images/profiles/new">
            Import a profile
          </Link>
          <Link className="stamp" href="/images/new">
            Add an image
          </Link>
        </div>
      }
    >
      <Ruled title="Image files">
        {images.length === 0 && <p className="quiet">No image yet.</p>}
        {images.length > 0 && (
          <table className="ruled">
            <thead>
              <tr>
                <th>Image</th>
                <th>File</th>
                <th>Size</th>
                <th>Starts in</th>
                <th>Checksum</th>
                <th>Used by</th>
              </tr>
            </thead>
            <tbody>
              {images.map(({ id, image, builds }) => (
                <tr key={id}>
                  <td className="font-medium">
                    <Link className="link-quiet" href={`/images/${id}`}>
                      {image.name}
                    </Link>
                  </td>
                  <td className="value [overflow-wrap:anywhere]">{image.fileName || "–"}</td>
                  <td className="value whitespace-nowrap">{formatBytes(image.sizeBytes)}</td>
                  <td>{image.bootModes.map((m) => (m === "uefi" ? "UEFI" : "legacy")).join(", ")}</td>
                  <td>{verificationOf(image)}</td>
                  <td className="value">{builds.map((b) => b.number).join(", ") || "–"}</td>
                </tr>
              ))}
            </tbody>
          </table>
        )}
      </Ruled>
      <Ruled title="OS profiles" note="how one family of operating system is installed; data, in YAML">
        <table className="ruled">
          <thead>
            <tr>
              <th>Profile</th>
              <th>Family</th>
              <th>Installer</th>
              <th>Screens</th>
              <th>Evaluation</th>
            </tr>
          </thead>
          <tbody>
            {profiles.map(({ key, version, profile }) => (
              <tr key={key + version}>
                <td className="font-medium">
                  <Link className="link-quiet" href={`/images/profiles/${key}/${version}`}>
                    {profile.name} {version}
                  </Link>
                </td>
                <td>{profile.family}</td>
                <td>{profile.installer}</td>
                <td>
                  {profile.screens.length} and {profile.firstBoot.length} at first boot
                </td>
                <td>{profile.evaluationDays ? `${profile.evaluationDays} days` : "–"}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </Ruled>
    </Page>
  );
}
