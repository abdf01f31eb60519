"use client";

import type { Answer } from "@/contract";
import { term } from "@/core/text";
import { useRouter } from "next/navigation";
import { useState } from "react";
import { newImage, type Published } from "@/core/image";
import type { Problem } from "@/core/result";
import { formatBytes, parseByteSize } from "@/core/units";
import { useKept } from "../draft/use-kept";
import { bound, type Typing } from "../draft/bound";
import { ParsedField, SelectField, TextField } from "../fields/fields";
import { TicksField } from "../fields/ticks";
import { Problems } from "../frame/problems";
import { useImage } from "./image-draft";

interface Choices {
  families: { key: string; name: string }[];
  /** Installers that a guest-driver or recovery image may go with. */
  others: { id: string; name: string }[];
}

const size = {
  format: (bytes: number) => (bytes === 0 ? "" : String(bytes)),
  parse(text: string): { value: number } | { problem: string } {
    const read = parseByteSize(text.replace(/\(.*\)/, ""));
    return read.ok ? read : { problem: read.problems.map((p) => p.message).join("; ") };
  },
};

const words = <const T extends string>(values: readonly T[]) =>
  values.map((v) => ({ value: v, text: term(v) }));
const PURPOSES = [
  { value: "installer", text: "installing" },
  { value: "guest drivers", text: "drivers for guests" },
  { value: "recovery", text: "recovery" },
  { value: "firmware", text: "firmware update" },
] as const;
const SIGNED = [...words(["signed", "unsigned"]), { value: "unknown", text: "unknown" }] as const;
const ALGORITHMS = [
  { value: "sha256", text: "SHA-256" },
  { value: "sha512", text: "SHA-512" },
  { value: "sha1", text: "SHA-1 (weak)" },
  { value: "md5", text: "MD5 (weak)" },
] as const;

/** What was published about an image on the shelf; it saves by itself. */
export const ImageForm = (choices: Choices) => <ImageFields typing={useImage()} {...choices} />;

/** An image typed by hand, kept when it is whole. */
export function NewImage({
  families,
  others,
  create,
}: Choices & {
  create: (fields: Published) => Promise<Answer<string>>;
}) {
  const router = useRouter();
  const [image, setImage] = useKept<Published>("image", newImage(families[0]?.key ?? ""));
  const [problems, setProblems] = useState<Problem[]>([]);
  const family = families.find((f) => f.key === image.profile)?.name ?? "";
  return (
    <form
      onSubmit={async (e) => {
        e.preventDefault();
        const answer = await create({ ...image, name: image.name || `${family} ${image.version}`.trim() });
        if (!answer.ok) return setProblems(answer.problems);
        setImage(newImage(families[0]?.key ?? ""));
        router.push(`/images/${answer.value}`);
      }}
    >
      <ImageFields typing={typingIn(image, setImage)} {...{ families, others }} />
      <Problems problems={problems} />
      <button type="submit" className="btn btn-primary mt-4">
        Save image
      </button>
    </form>
  );
}

/** A document that stands only in the browser, until it is made. */
const typingIn = (document: Published, set: (next: Published) => void): Typing<Published> => ({
  document,
  type: (changes) => set({ ...document, ...changes }),
});

function ImageFields({ typing, families, others }: Choices & { typing: Typing<Published> }) {
  const image = typing.document;
  const field = bound(typing);
  const known = families.map((f) => ({ value: f.key, text: f.name }));
  const lost = !families.some((f) => f.key === image.profile);
  return (
    <div className="grid gap-x-8 gap-y-4 md:grid-cols-2 lg:grid-cols-3">
      <SelectField
        {...field("profile", "OS profile")}
        options={
          lost ? [{ value: image.profile, text: `${image.profile} (profile missing)` }, ...known] : known
        }
      />
      <TextField {...field("version", "Version")} />
      <TextField {...field("name", "Name")} placeholder="profile and version" />
      <SelectField {...field("purpose", "Purpose")} options={PURPOSES} />
      <SelectField
        {...field("variant", "Variant")}
        options={words(["full", "network installer", "boot only", "maker's custom"])}
      />
      <SelectField {...field("architecture", "Architecture")} options={words(["x86_64", "aarch64"])} />
      <TextField {...field("fileName", "File name")} maxLength={300} />
      <ParsedField
        {...field("sizeBytes", "Size in bytes, or with its unit")}
        {...size}
        hint={image.sizeBytes > 0 ? formatBytes(image.sizeBytes) : undefined}
      />
      <TicksField
        {...field("bootModes", "Boot modes")}
        options={[
          { value: "uefi", text: "UEFI" },
          { value: "legacy", text: "legacy BIOS" },
        ]}
      />
      <SelectField {...field("loaderSigned", "Secure Boot loader")} options={SIGNED} />
      <Checksum typing={typing} />
      <TextField {...field("publishedFrom", "Source")} placeholder="vendor's download page, 20 Nov" />
      <TextField
        path="supportEnds"
        label="Support ends"
        type="date"
        value={image.supportEnds ?? ""}
        onChange={(day) => typing.type({ supportEnds: day || null })}
      />
      <TextField {...field("notes", "Notes")} />
      {others.length > 0 && (
        <TicksField
          {...field("goesWith", "Belongs to")}
          span
          options={others.map((o) => ({ value: o.id, text: o.name }))}
        />
      )}
    </div>
  );
}

/** The published checksum; no digits are none. */
function Checksum({ typing }: { typing: Typing<Published> }) {
  const { published } = typing.document;
  const [chosen, setChosen] = useState(published?.algorithm ?? "sha256");
  const algorithm = published?.algorithm ?? chosen;
  return (
    <>
      <SelectField
        path="published.algorithm"
        label="Published checksum"
        value={algorithm}
        options={ALGORITHMS}
        onChange={(next) => {
          setChosen(next);
          if (published) typing.type({ published: { ...published, algorithm: next } });
        }}
      />
      <ParsedField
        path="published.value"
        span
        label="Published checksum value"
        value={published?.value ?? ""}
        format={String}
        parse={(text) => ({ value: text.trim().split(/\s+/)[0] ?? "" })}
        onChange={(value) => typing.type({ published: value === "" ? null : { algorithm, value } })}
      />
    </>
  );
}
