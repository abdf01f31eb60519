import type { Claim, ClaimKind } from "../claims";
import { presentDrives, type Facts } from "../machine";
import type { CompatNote } from "./note";

/** A note that meets a part of this machine. */
export interface CompatHit {
  note: CompatNote;
  /** The part in words, as the machine names it. */
  part: string;
}

const plain = (text: string): string => text.toLowerCase().replace(/[\s_.,()-]+/g, "");

type Subject = CompatNote["subject"];

/** The kind of claim by which machines with the part of a note are found. */
export const claimKindOf = ({ kind }: Subject): ClaimKind =>
  kind === "pci" || kind === "usb" ? "device" : kind === "machine model" ? "machine model" : "drive model";

/** Whether a claim is that of a part which a note is about: ids exactly, models where the note's words stand in them. */
export function meets(subject: Subject, { kind, key }: Claim): boolean {
  if (kind !== claimKindOf(subject)) return false;
  return kind === "device"
    ? key === `${subject.kind} ${subject.value}`
    : plain(subject.value) !== "" && plain(key).includes(plain(subject.value));
}

/** "9" covers "9", "9.0" and "9.1.2", not "90". */
export const coversVersion = (noted: string, version: string): boolean =>
  noted === "" || version === noted || version.startsWith(`${noted}.`);

/** The notes that meet this machine under one profile and version: by PCI or USB id, by drive model, by machine model. */
export function matchNotes(
  notes: readonly CompatNote[],
  facts: Facts,
  profile: string,
  version: string,
): CompatHit[] {
  const byId = new Map([
    ...facts.pci.map((p) => [`pci ${p.ids}`, `${p.maker} ${p.device}`] as const),
    ...facts.usb.map((u) => [`usb ${u.ids}`, u.name] as const),
  ]);
  const drives = presentDrives(facts);
  return notes
    .filter((n) => n.profile === profile && coversVersion(n.version, version))
    .flatMap((note): CompatHit[] => {
      const { kind, value, name } = note.subject;
      if (kind === "pci" || kind === "usb") {
        const part = byId.get(`${kind} ${value}`);
        return part ? [{ note, part: name || part }] : [];
      }
      if (kind === "machine model") {
        const model = `${facts.chassis?.maker ?? ""} ${facts.chassis?.model ?? ""}`;
        return plain(value) !== "" && plain(model).includes(plain(value))
          ? [{ note, part: name || model.trim() }]
          : [];
      }
      const like = drives.filter(
        (d) => plain(d.model ?? "") !== "" && plain(d.model ?? "").includes(plain(value)),
      );
      return like.length > 0 ? [{ note, part: name || `${like.length} × ${like[0]?.model ?? value}` }] : [];
    });
}
