import Link from "next/link";
import { notFound } from "next/navigation";
import { verificationOf } from "@/core/image";
import { formatBytes, formatExactBytes } from "@/core/units";
import { imageView } from "@/server/images";
import { driveRegister } from "@/server/drives";
import { listProfiles } from "@/server/profiles";
import { listSites } from "@/server/sites";
import { Page, Ruled } from "@/ui/frame/page";
import { TitleBlock } from "@/ui/frame/title-block";
import { ByteMap } from "@/ui/image/byte-map";
import { ImageForm } from "@/ui/image/image-form";
import { ChecksumListForm } from "@/ui/image/list-form";
import { LookInside } from "@/ui/image/look-inside";
import { Reach } from "@/ui/image/reach";
import { Loaders, VerdictTable } from "@/ui/image/verdict-table";
import { VerifyForm } from "@/ui/image/verify-form";
import { keepComputed, keepDigest, keepImage, keepInside, readList } from "../actions";
import { orDamaged } from "../../or-damaged";
import { desk } from "../../desk";

export const dynamic = "force-dynamic";

export default async function ImagePage({ params }: { params: Promise<{ id: string }> }) {
  const [view, profiles, sites, register] = await Promise.all([
    orDamaged(imageView(await desk(), (await params).id)),
    listProfiles(await desk()),
    listSites(await desk()),
    driveRegister(await desk()),
  ]);
  const sticks = register.filter(({ entry }) => entry.media === "usb" && entry.state !== "destroyed");
  if (!view) notFound();
  const { id, image, version, profile, builds, marks, companions, others } = view;
  const families = [...new Map(profiles.map((p) => [p.key, { key: p.key, name: p.profile.name }])).values()];
  const verdict = verificationOf(image);
  return (
    <>
      <Page
        title={image.name}
        lead={
          profile
            ? `Installed as ${profile.name} ${profile.version}: ${profile.family}`
            : `The OS profile "${image.profile}" is not in this installation; choose another below, or import it.`
        }
      >
        {(marks.length > 0 || companions.length > 0) && (
          <ul className="mb-6 space-y-1">
            {marks.map((m) => (
              <li key={m.words} className="border-l-4 pl-3 border-warning">
                {m.other ? (
                  <Link className="link" href={`/images/${m.other}`}>
                    {m.words}
                  </Link>
                ) : (
                  m.words
                )}
              </li>
            ))}
            {companions.map((c) => (
              <li key={c.id}>
                <span className="label mr-2">{c.purpose === "installer" ? "goes with" : c.purpose}</span>
                <Link className="link" href={`/images/${c.id}`}>
                  {c.name}
                </Link>
              </li>
            ))}
          </ul>
        )}
        <Ruled
          title="Where it starts"
          note={
            image.inside
              ? `${image.inside.fileName}, looked into ${image.inside.at.slice(0, 10)} by ${image.inside.by}`
              : undefined
          }
        >
          <LookInside
            imageId={id}
            algorithm={image.published?.algorithm ?? "sha256"}
            keepInside={keepInside.bind(null, id)}
            keepDigest={keepDigest.bind(null, id, image.published?.algorithm ?? "sha256")}
          />
          {image.inside ? (
            <div className="mt-4 space-y-4">
              <p>
                <span className="text-[1.07rem] font-semibold">{image.inside.found.kind}</span>
                {image.inside.found.volumeId && (
                  <>
                    , volume <span className="value">{image.inside.found.volumeId}</span>
                  </>
                )}
              </p>
              {image.inside.found.faults.map((f) => (
                <p
                  key={f.message}
                  className="border-l-4 pl-3"
                  style={{ borderColor: f.grave ? "var(--color-error)" : "var(--color-warning)" }}
                >
                  {f.grave && <span className="font-semibold">Damaged: </span>}
                  {f.message}
                </p>
              ))}
              <VerdictTable verdict={image.inside.found.verdict} />
              <Loaders loaders={image.inside.found.loaders} />
              <ByteMap regions={image.inside.found.regions} size={image.inside.found.sizeBytes} />
              <p className="quiet">
                {image.inside.found.loaders.length > 0 &&
                  `Loaders: ${image.inside.found.loaders.map((l) => `${l.path} (${l.arch ?? "not an EFI program"}, ${l.where})`).join("; ")}. `}
                {formatBytes(image.inside.found.bytesRead)} were read. Whether a loader works is not seen from
                outside.
              </p>
            </div>
          ) : (
            <p className="quiet mt-3">Nobody has looked inside yet: where it boots is what somebody typed.</p>
          )}
        </Ruled>
        <Ruled title="Is it the file that was published?">
          <VerifyForm
            key={`v${version}`}
            image={image}
            verdict={verdict}
            save={keepComputed.bind(null, id, image.published?.algorithm ?? "sha256")}
          />
          <ChecksumListForm take={readList.bind(null, id)} />
        </Ruled>
        <Ruled
          title="Until it is there"
          note="fetching it over each site's line, and the sticks that hold it"
        >
          <Reach image={image} imageId={id} sites={sites} sticks={sticks} />
        </Ruled>
        <Ruled title="What was published about it">
          <ImageForm
            key={`f${version}`}
            id={id}
            version={version}
            image={image}
            families={families}
            others={others
              .filter((o) => o.image.purpose === "installer")
              .map((o) => ({ id: o.id, name: o.image.name }))}
            save={keepImage}
          />
        </Ruled>
      </Page>
      <TitleBlock
        cells={[
          { label: image.purpose === "installer" ? "Image" : image.purpose, value: image.name },
          { label: "File", value: image.fileName || "–", mono: true, grow: true },
          { label: "Size", value: formatExactBytes(image.sizeBytes), mono: true },
          { label: "Checksum", value: verdict },
          {
            label: "Used by",
            value:
              builds.length === 0
                ? "no sheet"
                : builds.map((b, i) => (
                    <span key={b.id}>
                      {i > 0 && ", "}
                      <Link className="link" href={`/builds/${b.id}`}>
                        {b.number}
                      </Link>
                    </span>
                  )),
          },
        ]}
      />
    </>
  );
}
