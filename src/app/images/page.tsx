import Link from "next/link";
import { shortModes, verificationOf, type Profile } from "@/core/image";
import { formatDay } from "@/core/units";
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

const lineOf = ({ id, image, builds, marks, supportEnd }: Shelved): ImageLine => ({
  ...{ id, name: image.name, purpose: image.purpose, fileName: image.fileName, sizeBytes: image.sizeBytes },
  startsIn: image.purpose === "installer" ? shortModes(image) : "",
  checksum: verificationOf(image),
  supportEnds: supportEnd,
  builds: builds.map((b) => b.number).join(" "),
  // The day has a column of its own.
  marks: marks.map((m) => (m.kind === "ended" ? "support ended" : m.words)).join("; "),
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
  { title: "OS family", cell: ({ profile }) => profile.family },
  {
    title: "Answers",
    cell: ({ profile }) => (profile.answerFile === "none" ? "answer card" : profile.answerFile),
  },
  {
    title: "Screens",
    cell: ({ profile }) => `${profile.screens.length}, and ${profile.firstBoot.length} at first boot`,
  },
  {
    title: "Upgrades from",
    cell: ({ key, profile }) => profile.upgrades.map((u) => jumpWords(key, u)).join(", ") || "–",
  },
  {
    title: "Support ends",
    className: "value whitespace-nowrap",
    cell: ({ profile }) => (profile.support.ends ? formatDay(profile.support.ends) : "–"),
  },
  {
    title: "Revision",
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
            Import profile
          </Link>
          <Link className="btn" href="/images/new">
            Add image
          </Link>
        </div>
      }
    >
      <AddFile keepFile={keepFile} keepDigest={keepDigest} />
      <Ruled title="Image library">
        {images.length === 0 ? (
          <p className="quiet">No image yet.</p>
        ) : (
          <ImageList images={images.map(lineOf)} />
        )}
      </Ruled>
      <Ruled title="Server image folder">
        {folder === null && (
          <p className="quiet">
            No image folder is set. Set <span className="value">DERRICK_IMAGE_DIR</span> to a folder on the
            server; its files then appear here and the server computes their checksums.
          </p>
        )}
        {folder?.ok === false && <p role="alert">{folder.problems[0]?.message}</p>}
        {folder?.ok && (
          <ImageFolder initial={folder.value} shelve={shelve} compute={computeOnServer} stop={stopOnServer} />
        )}
      </Ruled>
      <Ruled title="OS profiles" note="how an OS family is installed, as YAML data">
        <Table columns={PROFILES} rows={profiles} keyOf={(p) => p.key + p.version} />
      </Ruled>
    </Page>
  );
}
