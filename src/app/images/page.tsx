import Link from "next/link";
import { startsIn, verificationOf, type Profile } from "@/core/image";
import { imageFolder } from "@/server/image-folder";
import { listImages } from "@/server/images";
import { listProfiles, type ProfileView } from "@/server/profiles";
import { Page, Ruled } from "@/ui/frame/page";
import { Table, type Column } from "@/ui/frame/table";
import { AddFile } from "@/ui/image/add-file";
import { ImageList, type ImageLine } from "@/ui/image/image-list";
import { ImageFolder } from "@/ui/image/folder";
import { computeOnServer, keepDigest, keepFile, shelve, stopOnServer } from "./actions";
import { desk } from "../desk";

export const dynamic = "force-dynamic";
export const metadata = { title: "Images" };

type Shelved = Awaited<ReturnType<typeof listImages>>[number];

const lineOf = ({ id, image, builds, marks }: Shelved): ImageLine => ({
  ...{ id, name: image.name, purpose: image.purpose, fileName: image.fileName, sizeBytes: image.sizeBytes },
  startsIn: image.purpose === "installer" ? startsIn(image) : "",
  checksum: verificationOf(image),
  supportEnds: image.supportEnds ?? "",
  builds: builds.map((b) => b.number).join(" "),
  marks: marks.map((m) => m.words).join("; "),
});

/** Where an upgrade of a profile starts; within its own family the version says it. */
const jumpWords = (key: string, { from }: Profile["upgrades"][number]): string =>
  `${from.profile === key ? "" : `${from.profile} `}${from.least ?? from.version}`;

const PROFILES: Column<ProfileView>[] = [
  {
    title: "Profile",
    className: "font-medium",
    cell: ({ key, version, profile }) => (
      <Link className="link" href={`/images/profiles/${key}/${version}`}>
        {profile.name} {version}
      </Link>
    ),
  },
  { title: "Family", cell: ({ profile }) => profile.family },
  {
    title: "Answers from",
    cell: ({ profile }) => (profile.answerFile === "none" ? "the answer card" : profile.answerFile),
  },
  {
    title: "Screens",
    cell: ({ profile }) => `${profile.screens.length} and ${profile.firstBoot.length} at first boot`,
  },
  {
    title: "Jumps onto it",
    cell: ({ key, profile }) => profile.upgrades.map((u) => jumpWords(key, u)).join(", ") || "–",
  },
  {
    title: "Support ends",
    className: "value whitespace-nowrap",
    cell: ({ profile }) => profile.support.ends ?? "–",
  },
  {
    title: "Edition",
    cell: ({ edition, by }) => (
      <>
        <span className="value">{edition}</span>
        {by && <span className="quiet">, {by}</span>}
      </>
    ),
  },
];

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
        {images.length === 0 ? (
          <p className="quiet">No image yet.</p>
        ) : (
          <ImageList images={images.map(lineOf)} />
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
        <Table columns={PROFILES} rows={profiles} keyOf={(p) => p.key + p.version} />
      </Ruled>
    </Page>
  );
}
