import Link from "next/link";
import { formatBytes, formatExactBytes, parseByteSize } from "@/core/units";
import { ChoiceField, ParsedField, SelectField, TextField } from "../fields/fields";
import type { ZoneProps } from "./zone-props";

const WAYS = [
  { value: "virtual media", text: "virtual media" },
  { value: "stick", text: "stick" },
] as const;

const WRITTEN = [
  { value: "as the image", text: "byte for byte" },
  { value: "uefi", text: "for UEFI" },
  { value: "legacy", text: "for legacy" },
  { value: "unknown", text: "not known" },
] as const;

export function ImageZone({ view, sheet, edit, marks }: ZoneProps) {
  const { image } = view.context;
  const { stick } = sheet.image;
  return (
    <div className="grid gap-x-8 gap-y-3 sm:grid-cols-2">
      <SelectField
        path="image.id"
        label="Image"
        marks={marks("image.id")}
        value={sheet.image.id ?? ""}
        empty="choose …"
        options={view.choices.images.map((i) => ({ value: i.id, text: i.name }))}
        onChange={(id) => edit({ "image.id": id || null })}
        hint={
          sheet.image.id ? (
            <Link className="link-quiet" href={`/images/${sheet.image.id}`}>
              its sheet: checksum, modes
            </Link>
          ) : (
            <Link className="link-quiet" href="/images/new">
              an image that is not here yet
            </Link>
          )
        }
      />
      {image ? (
        <dl className="grid grid-cols-[auto_1fr] content-start gap-x-3 gap-y-0.5">
          <dt className="legend pt-0.5">Size</dt>
          <dd className="value">
            {formatBytes(image.sizeBytes)} <span className="quiet">{formatExactBytes(image.sizeBytes)}</span>
          </dd>
          <dt className="legend pt-0.5">Starts in</dt>
          <dd>
            {image.bootModes.map((m) => (m === "uefi" ? "UEFI" : "legacy")).join(" and ")},{" "}
            {image.architecture}
          </dd>
          <dt className="legend pt-0.5">Checksum</dt>
          <dd className="value truncate" title={image.published?.value}>
            {image.published ? `${image.published.algorithm} …${image.published.value.slice(-12)}` : "none"}
          </dd>
        </dl>
      ) : (
        <span />
      )}
      <ChoiceField
        path="image.way"
        label="Way to the machine"
        marks={marks("image.way")}
        value={sheet.image.way}
        options={WAYS}
        onChange={(way) => edit({ "image.way": way })}
      />
      {sheet.image.way === "stick" && (
        <>
          <TextField
            path="image.stick.name"
            label="Stick"
            marks={marks("image.stick.name")}
            value={stick.name}
            placeholder="what is written on it"
            onChange={(v) => edit({ "image.stick.name": v })}
          />
          <ParsedField
            path="image.stick.sizeBytes"
            label="Size of the stick"
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
          <ChoiceField
            path="image.stick.written"
            label="Written"
            marks={marks("image.stick.written")}
            value={stick.written}
            options={WRITTEN}
            onChange={(v) => edit({ "image.stick.written": v })}
          />
          <TextField
            path="image.stick.holds"
            label="What is on it now (will be erased)"
            marks={marks("image.stick.holds")}
            value={stick.holds}
            placeholder="nothing"
            onChange={(v) => edit({ "image.stick.holds": v })}
          />
        </>
      )}
    </div>
  );
}
