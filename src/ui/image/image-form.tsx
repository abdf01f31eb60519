"use client";

import { useRouter } from "next/navigation";
import { useState } from "react";
import type { Image } from "@/core/image";
import type { Problem } from "@/core/result";
import { formatBytes, parseByteSize } from "@/core/units";
import { Problems } from "../frame/problems";

interface Props {
  id: string | null;
  version: number;
  image: Image | null;
  families: { key: string; name: string }[];
  /** Installers that a guest-driver or recovery image may go with. */
  others: { id: string; name: string }[];
  save: (
    id: string | null,
    version: number,
    fields: object,
  ) => Promise<{ ok: true; value: { id: string; version: number } } | { ok: false; problems: Problem[] }>;
}

/** An image typed by hand: what was published about it. Sizes are read when the form is saved, with their place on error. */
export function ImageForm({ id, version, image, families, others, save }: Props) {
  const router = useRouter();
  const [problems, setProblems] = useState<Problem[]>([]);
  const [saved, setSaved] = useState(false);
  const submit = async (form: FormData) => {
    const get = (name: string): string => String(form.get(name) ?? "").trim();
    const size = parseByteSize(get("size").replace(/\(.*\)/, ""));
    if (!size.ok) return setProblems(size.problems.map((p) => ({ message: `Size: ${p.message}` })));
    const checksum = get("checksum").split(/\s+/)[0] ?? "";
    const answer = await save(id, version, {
      name:
        get("name") ||
        `${families.find((f) => f.key === get("profile"))?.name ?? ""} ${get("version")}`.trim(),
      profile: get("profile"),
      version: get("version"),
      purpose: get("purpose"),
      goesWith: form.getAll("goesWith").map(String),
      variant: get("variant"),
      architecture: get("architecture"),
      fileName: get("fileName"),
      sizeBytes: size.value,
      bootModes: ["uefi", "legacy"].filter((m) => form.get(m) === "on"),
      loaderSigned: get("loaderSigned"),
      published: checksum === "" ? null : { algorithm: get("algorithm"), value: checksum },
      publishedFrom: get("publishedFrom"),
      supportEnds: get("supportEnds") || null,
      notes: get("notes"),
    });
    setProblems(answer.ok ? [] : answer.problems);
    setSaved(answer.ok);
    if (answer.ok && id === null) router.push(`/images/${answer.value.id}`);
    else if (answer.ok) router.refresh();
  };
  const text = (
    name: string,
    label: string,
    value: string,
    props: React.InputHTMLAttributes<HTMLInputElement> = {},
  ) => (
    <label>
      <span className="label">{label}</span>
      <input
        name={name}
        className="input"
        defaultValue={value}
        maxLength={300}
        autoComplete="off"
        spellCheck={false}
        {...props}
      />
    </label>
  );
  const select = (name: string, label: string, value: string, options: [string, string][]) => (
    <label>
      <span className="label">{label}</span>
      <select name={name} className="select" defaultValue={value}>
        {options.map(([v, t]) => (
          <option key={v} value={v}>
            {t}
          </option>
        ))}
      </select>
    </label>
  );
  return (
    <form
      className="grid gap-x-8 gap-y-4 sm:grid-cols-2 lg:grid-cols-3"
      onChange={() => setSaved(false)}
      onSubmit={(e) => {
        e.preventDefault();
        void submit(new FormData(e.currentTarget));
      }}
    >
      {select("profile", "OS profile", image?.profile ?? families[0]?.key ?? "", [
        ...(image && !families.some((f) => f.key === image.profile)
          ? [[image.profile, `${image.profile} (no such profile here)`] as [string, string]]
          : []),
        ...families.map((f): [string, string] => [f.key, f.name]),
      ])}
      {text("version", "Version", image?.version ?? "", { required: true })}
      {text("name", "Name", image?.name ?? "", { placeholder: "profile and version" })}
      {select("purpose", "What it is for", image?.purpose ?? "installer", [
        ["installer", "installing"],
        ["guest drivers", "drivers for guests"],
        ["recovery", "recovery"],
        ["firmware", "firmware update"],
      ])}
      {select("variant", "Variant", image?.variant ?? "full", [
        ["full", "full"],
        ["network installer", "network installer"],
        ["boot only", "boot only"],
        ["maker's custom", "maker's custom"],
      ])}
      {select("architecture", "Architecture", image?.architecture ?? "x86_64", [
        ["x86_64", "x86_64"],
        ["aarch64", "aarch64"],
      ])}
      {text("fileName", "File name", image?.fileName ?? "")}
      {text("size", "Size in bytes, or with its unit", image ? String(image.sizeBytes) : "", {
        required: true,
        title: image ? formatBytes(image.sizeBytes) : undefined,
      })}
      <fieldset>
        <legend className="label">Starts in</legend>
        {(["uefi", "legacy"] as const).map((m) => (
          <label key={m} className="mr-4 inline-flex items-center gap-2 py-1">
            <input
              type="checkbox"
              name={m}
              defaultChecked={image?.bootModes.includes(m) ?? m === "uefi"}
              className="checkbox checkbox-xs checkbox checkbox-xs"
            />
            {m === "uefi" ? "UEFI" : "legacy"}
          </label>
        ))}
      </fieldset>
      {select("loaderSigned", "Loader for secure boot", image?.loaderSigned ?? "unknown", [
        ["signed", "signed"],
        ["unsigned", "unsigned"],
        ["unknown", "nobody has looked"],
      ])}
      {select("algorithm", "Published checksum", image?.published?.algorithm ?? "sha256", [
        ["sha256", "SHA-256"],
        ["sha512", "SHA-512"],
        ["sha1", "SHA-1, weak"],
        ["md5", "MD5, weak"],
      ])}
      <label className="sm:col-span-2">
        <span className="label">Its digits, as published</span>
        <input
          name="checksum"
          className="input"
          defaultValue={image?.published?.value ?? ""}
          maxLength={200}
          autoComplete="off"
          spellCheck={false}
        />
      </label>
      {text("publishedFrom", "Published where", image?.publishedFrom ?? "", {
        placeholder: "the maker's download page, 20 Nov",
      })}
      {text("supportEnds", "Support ends", image?.supportEnds ?? "", { type: "date" })}
      {text("notes", "Notes", image?.notes ?? "")}
      {others.length > 0 && (
        <fieldset className="col-span-full">
          <legend className="label">Goes with</legend>
          {others.map((o) => (
            <label key={o.id} className="mr-5 inline-flex items-center gap-2 py-1">
              <input
                type="checkbox"
                name="goesWith"
                value={o.id}
                defaultChecked={image?.goesWith.includes(o.id)}
                className="checkbox checkbox-xs checkbox checkbox-xs"
              />
              {o.name}
            </label>
          ))}
        </fieldset>
      )}
      <div className="col-span-full">
        <Problems problems={problems} />
        <button type="submit" className="btn btn-primary">
          {id === null ? "Keep this image" : "Keep"}
        </button>
        {saved && (
          <span role="status" className="quiet ml-3">
            kept
          </span>
        )}
      </div>
    </form>
  );
}
