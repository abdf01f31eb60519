import Link from "next/link";
import { verificationOf } from "@/core/image";
import { formatBytes } from "@/core/units";
import { imageFolder } from "@/server/image-folder";
import { listImages } from "@/server/images";
import { listProfiles } from "@/server/profiles";
import { Page, Ruled } from "@/ui/frame/page";
import { AddFile } from "@/ui/image/add-file";
import { ImageFolder } from "@/ui/image/folder";
import { computeOnServer, keepDigest, keepFile, shelve, stopOnServer } from "./actions";
import { desk } from "../desk";

export const dynamic = "force-dynamic";
export const metadata = { title: "Images" };

const COLOUR = { matches: "var(--color-success)", differs: "var(--color-error)" } as Record<string, string>;

export default async function Images() {
  const [images, profiles, folder] = await Promise.all([
    listImages(await desk()),
    listProfiles(await desk()),
    imageFolder(await desk()),
  ]);
  return (
    <Page
      title="Images"
      aside={
        <div className="flex gap-2">
          <Link className="btn" href="/images/profiles/new">
            Import a profile
          </Link>
          <Link className="btn" href="/images/new">
            Add an image by hand
          </Link>
        </div>
      }
    >
      <AddFile keepFile={keepFile} keepDigest={keepDigest} />
      <Ruled title="On the shelf">
        {images.length === 0 && <p className="quiet">No image yet.</p>}
        {images.length > 0 && (
          <table className="table">
            <thead>
              <tr>
                <th>Image</th>
                <th>Size</th>
                <th>Starts in</th>
                <th>Checksum</th>
                <th>Support ends</th>
                <th>Used by</th>
              </tr>
            </thead>
            <tbody>
              {images.map(({ id, image, builds, marks }) => (
                <tr key={id}>
                  <td className="font-medium">
                    <Link className="link" href={`/images/${id}`}>
                      {image.name}
                    </Link>
                    {image.purpose !== "installer" && (
                      <span className="quiet font-normal"> {image.purpose}</span>
                    )}
                    {image.fileName && (
                      <div className="value quiet text-[0.86rem] font-normal [overflow-wrap:anywhere]">
                        {image.fileName}
                      </div>
                    )}
                    {marks.map((m) => (
                      <div key={m.words} className="text-[0.86rem] font-normal text-warning">
                        {m.words}
                      </div>
                    ))}
                  </td>
                  <td className="value whitespace-nowrap">{formatBytes(image.sizeBytes)}</td>
                  <td>
                    {image.purpose === "installer"
                      ? image.bootModes.map((m) => (m === "uefi" ? "UEFI" : "legacy")).join(", ")
                      : "–"}
                  </td>
                  <td style={{ color: COLOUR[verificationOf(image)] }}>{verificationOf(image)}</td>
                  <td className="value whitespace-nowrap">{image.supportEnds ?? "–"}</td>
                  <td className="value">
                    {builds.length === 0 && "–"}
                    {builds.map((b) => (
                      <span key={b.id} className="mr-2 inline-block whitespace-nowrap">
                        {b.number}
                      </span>
                    ))}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        )}
      </Ruled>
      <Ruled title="Image folder of the server">
        {folder === null && (
          <p className="quiet">
            None. Start Derrick with <span className="value">DERRICK_IMAGE_DIR</span> naming a folder, and its
            files can be put on the shelf from here, their checksums computed by the server.
          </p>
        )}
        {folder?.ok === false && <p role="alert">{folder.problems[0]?.message}</p>}
        {folder?.ok && (
          <ImageFolder initial={folder.value} shelve={shelve} compute={computeOnServer} stop={stopOnServer} />
        )}
      </Ruled>
      <Ruled title="OS profiles" note="how one family of operating system is installed; data, in YAML">
        <table className="table">
          <thead>
            <tr>
              <th>Profile</th>
              <th>Family</th>
              <th>Answers from</th>
              <th>Screens</th>
              <th>Jumps onto it</th>
              <th>Support ends</th>
              <th>Edition</th>
            </tr>
          </thead>
          <tbody>
            {profiles.map(({ key, version, edition, by, profile }) => (
              <tr key={key + version}>
                <td className="font-medium">
                  <Link className="link" href={`/images/profiles/${key}/${version}`}>
                    {profile.name} {version}
                  </Link>
                </td>
                <td>{profile.family}</td>
                <td>{profile.answerFile === "none" ? "the answer card" : profile.answerFile}</td>
                <td>
                  {profile.screens.length} and {profile.firstBoot.length} at first boot
                </td>
                <td>
                  {profile.upgrades.length === 0
                    ? "–"
                    : profile.upgrades
                        .map(
                          (u) =>
                            `${u.from.profile === key ? "" : `${u.from.profile} `}${u.from.least ?? u.from.version}`,
                        )
                        .join(", ")}
                </td>
                <td className="value whitespace-nowrap">{profile.support.ends ?? "–"}</td>
                <td>
                  <span className="value">{edition}</span>
                  {by && <span className="quiet">, {by}</span>}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </Ruled>
    </Page>
  );
}
