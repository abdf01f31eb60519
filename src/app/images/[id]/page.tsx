import Link from "next/link";
import { notFound } from "next/navigation";
import { verificationOf } from "@/core/image";
import { formatExactBytes, formatDate } from "@/core/units";
import { imageView } from "@/server/images";
import { driveRegister } from "@/server/drives";
import { listProfiles } from "@/server/profiles";
import { listSites, homeZone } from "@/server/sites";
import { IMAGE, writtenView } from "@/server/written";
import { Page, Ruled } from "@/ui/frame/page";
import { TitleBlock } from "@/ui/frame/title-block";
import { ImageDraft, ImageFoot } from "@/ui/image/image-draft";
import { Inside } from "@/ui/image/inside";
import { ShelfLines } from "@/ui/image/shelf-lines";
import { ImageForm } from "@/ui/image/image-form";
import { ChecksumListForm } from "@/ui/image/list-form";
import { LookInside } from "@/ui/image/look-inside";
import { Reach } from "@/ui/image/reach";
import { VerifyForm } from "@/ui/image/verify-form";
import { keepComputed, keepDigest, keepImage, keepInside, readList, takeImageBack } from "../actions";
import { orDamaged } from "../../or-damaged";
import { desk } from "../../desk";
import { titled } from "../../titled";

export const dynamic = "force-dynamic";
export const generateMetadata = titled("image", "Image");

export default async function ImagePage({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  const at = await desk();
  const [view, profiles, sites, register] = await Promise.all([
    orDamaged(imageView(at, id)),
    listProfiles(at),
    listSites(at),
    driveRegister(at),
  ]);
  const given = view && (await writtenView(at, IMAGE, id));
  const sticks = register.filter(({ entry }) => entry.media === "usb" && entry.state !== "destroyed");
  if (!view || !given) notFound();
  const { image, profile, builds, marks, companions, others } = view;
  const families = [...new Map(profiles.map((p) => [p.key, { key: p.key, name: p.profile.name }])).values()];
  const verdict = verificationOf(image);
  return (
    <ImageDraft
      {...{ id, given }}
      actions={{ save: keepImage.bind(null, id), takeBack: takeImageBack.bind(null, id) }}
    >
      <Page
        title={image.name}
        lead={
          profile
            ? `Installed with the OS profile ${profile.name} ${profile.version}: ${profile.family}`
            : `The OS profile "${image.profile}" does not exist here: choose another one below, or import it.`
        }
      >
        <ShelfLines marks={marks} companions={companions} />
        <Ruled
          title="Boot modes"
          note={
            image.inside
              ? `${image.inside.fileName}, inspected on ${formatDate(image.inside.at, await homeZone(await desk()))} by ${image.inside.by}`
              : undefined
          }
        >
          <LookInside
            imageId={id}
            algorithm={image.published?.algorithm ?? "sha256"}
            keepInside={keepInside.bind(null, id)}
            keepDigest={keepDigest.bind(null, id, image.published?.algorithm ?? "sha256")}
          />
          <Inside image={image} />
        </Ruled>
        <Ruled title="Checksum verification">
          <VerifyForm
            image={image}
            verdict={verdict}
            save={keepComputed.bind(null, id, image.published?.algorithm ?? "sha256")}
          />
          <ChecksumListForm take={readList.bind(null, id)} />
        </Ruled>
        <Ruled
          title="Transfer time and media"
          note="download over the link of each site, and USB sticks that can hold it"
        >
          <Reach image={image} imageId={id} sites={sites} sticks={sticks} />
        </Ruled>
        <Ruled title="Published information">
          <ImageForm
            families={families}
            others={others
              .filter((o) => o.image.purpose === "installer")
              .map((o) => ({ id: o.id, name: o.image.name }))}
          />
        </Ruled>
      </Page>
      <TitleBlock
        cells={[
          { label: image.purpose === "installer" ? "Image" : image.purpose, value: image.name },
          { label: "File", value: image.fileName || "–", mono: true, grow: true },
          { label: "Size", value: formatExactBytes(image.sizeBytes), mono: true },
          { label: "Checksum", value: verdict },
          { label: "Used by", value: <UsedBy builds={builds} /> },
        ]}
      >
        <ImageFoot timeZone="UTC" />
      </TitleBlock>
    </ImageDraft>
  );
}

const UsedBy = ({ builds }: { builds: { id: string; number: string }[] }) =>
  builds.length === 0
    ? "no build sheet"
    : builds.map((b, i) => (
        <span key={b.id}>
          {i > 0 && ", "}
          <Link className="link" href={`/builds/${b.id}`}>
            {b.number}
          </Link>
        </span>
      ));
