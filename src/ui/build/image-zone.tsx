import dynamic from "next/dynamic";
import Link from "next/link";
import { formatBytes, formatExactBytes, parseByteSize } from "@/core/units";
import { term } from "@/core/text";
import { ChoiceField, ParsedField, SelectField, TextField } from "../fields/fields";
import { LikeFamily } from "./like-family";
import { RoadChoice } from "./roads-table";
import { WayChoice } from "./ways-table";
import type { ZoneProps } from "./zone-props";
import { Size } from "../frame/person";

// It brings the inspector along, which a sheet that has its image does not need.
const TakeFile = dynamic(() => import("../image/take-file"), { ssr: false });

const WRITTEN = [
  { value: "as the image", text: "byte for byte" },
  { value: "uefi", text: "UEFI only" },
  { value: "legacy", text: "legacy BIOS only" },
  { value: "unknown", text: "unknown" },
] as const;

export function ImageZone(props: ZoneProps) {
  const { view, sheet, edit, marks, images } = props;
  const { image, edition, profile } = view.context;
  return (
    <div className="grid gap-x-8 gap-y-3 md:grid-cols-2">
      <SelectField
        path="image.id"
        label="Image"
        marks={marks("image.id")}
        value={sheet.image.id ?? ""}
        empty="choose…"
        options={view.choices.images.map((i) => ({ value: i.id, text: i.name }))}
        onChange={(id) => edit({ "image.id": id || null })}
        hint={
          sheet.image.id ? (
            <>
              <Link className="link" href={`/images/${sheet.image.id}`}>
                Image page: checksum, boot modes
              </Link>
              {profile && (
                <>
                  {" · "}
                  <Link
                    className="link"
                    href={`/images/profiles/${profile.profile}/${profile.version}?image=${sheet.image.id}`}
                  >
                    OS profile: {profile.name} {profile.version}
                  </Link>
                </>
              )}
            </>
          ) : (
            <Link className="link" href="/images/new">
              Add an image
            </Link>
          )
        }
      />
      {image ? <Facts {...props} /> : <span />}
      {!image && (
        <TakeFile
          title="Drop the image file to install"
          actions={images}
          onTaken={(id) => edit({ "image.id": id })}
        />
      )}
      {image && !view.context.profile && (
        <LikeFamily families={view.choices.families} onChoose={(family) => void props.like(family)} />
      )}
      {edition && edition.kept < edition.newest && (
        <div data-field="image.edition" className="col-span-full">
          Steps use profile revision {edition.kept}.{" "}
          <button type="button" className="link" onClick={() => edit({ "image.edition": edition.newest })}>
            Use revision {edition.newest}
          </button>
        </div>
      )}
      {view.roads.length > 0 && (
        <RoadChoice
          roads={view.roads}
          chosen={sheet.image.road}
          marks={marks("image.road")}
          onChoose={(road) => edit({ "image.road": road })}
        />
      )}
      {view.ways ? (
        <WayChoice
          ways={view.ways}
          chosen={sheet.image.way}
          marks={marks("image.way")}
          onChoose={(way) => edit({ "image.way": way })}
        />
      ) : (
        image && (
          <p className="quiet col-span-full">
            This method runs in the installed system and needs no boot media.
          </p>
        )
      )}
      {view.ways && sheet.image.way === "stick" && <Stick {...props} />}
    </div>
  );
}

function Facts({ view }: ZoneProps) {
  const { image } = view.context;
  if (!image) return null;
  return (
    <dl className="grid grid-cols-[auto_1fr] content-start gap-x-3 gap-y-0.5">
      <dt className="label pt-0.5">Size</dt>
      <dd className="value">
        <Size bytes={image.sizeBytes} /> <span className="quiet">{formatExactBytes(image.sizeBytes)}</span>
      </dd>
      <dt className="label pt-0.5">Boot modes</dt>
      <dd>
        {image.bootModes.map((m) => (m === "uefi" ? "UEFI" : "legacy")).join(" and ") ||
          "neither UEFI nor legacy BIOS"}
        , {image.architecture}
      </dd>
      <dt className="label pt-0.5">Checksum</dt>
      <dd className="value" title={image.published?.value}>
        {image.published ? `${term(image.published.algorithm)} …${image.published.value.slice(-12)}` : "none"}
      </dd>
    </dl>
  );
}

/** A stick of the register brings its size, serial and content; another one is described here. */
function Stick({ view, sheet, edit, marks }: ZoneProps) {
  const { stick } = sheet.image;
  return (
    <>
      <SelectField
        path="image.stick.key"
        label="USB stick from the drive inventory"
        marks={[...marks("image.stick.key"), ...(stick.key ? marks("image.stick.holds") : [])]}
        value={stick.key}
        empty="another one, described here"
        options={view.choices.sticks.map((s) => ({ value: s.key, text: s.name }))}
        onChange={(key) => edit({ "image.stick.key": key, "image.stick.ready": false })}
        hint={
          stick.key ? (
            <Link className="link" href={`/machines/drives/${encodeURIComponent(stick.key)}`}>
              contents and history
            </Link>
          ) : undefined
        }
      />
      {stick.key !== "" && (
        <ChoiceField
          path="image.stick.ready"
          label="Before this build"
          marks={marks("image.stick.ready")}
          value={stick.ready ? "ready" : "write"}
          options={[
            { value: "write", text: "the image is written to it" },
            { value: "ready", text: "it already holds the image" },
          ]}
          onChange={(v) => edit({ "image.stick.ready": v === "ready" })}
        />
      )}
      {!stick.ready && (
        <ChoiceField
          path="image.stick.written"
          label="Write mode"
          marks={marks("image.stick.written")}
          value={stick.written}
          options={WRITTEN}
          onChange={(v) => edit({ "image.stick.written": v })}
        />
      )}
      {stick.key === "" && (
        <>
          <TextField
            path="image.stick.name"
            label="USB stick"
            marks={marks("image.stick.name")}
            value={stick.name}
            placeholder="written image"
            onChange={(v) => edit({ "image.stick.name": v })}
          />
          <ParsedField
            path="image.stick.sizeBytes"
            label="Stick size"
            marks={marks("image.stick.sizeBytes")}
            value={stick.sizeBytes}
            placeholder="8 GB"
            format={(n) => (n === null ? "" : formatBytes(n))}
            parse={(text) => {
              if (text.trim() === "") return { value: null };
              const size = parseByteSize(text.replace(/\(.*\)/, ""));
              return size.ok ? { value: size.value } : { problem: size.problems[0]?.message ?? "not a size" };
            }}
            onChange={(n) => edit({ "image.stick.sizeBytes": n })}
          />
          <TextField
            path="image.stick.holds"
            label="Contents now (will be erased)"
            marks={marks("image.stick.holds")}
            value={stick.holds}
            placeholder="nothing"
            onChange={(v) => edit({ "image.stick.holds": v })}
          />
        </>
      )}
    </>
  );
}
