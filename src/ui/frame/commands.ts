import { KEY_GROUPS } from "./keys";

/** Something that the find box does, or a key that it tells of. */
export interface Command {
  kind: "command" | "key";
  title: string;
  detail: string;
  /** Where it leads, or what it does; a key leads to the sheet of keys. */
  does: { href: string } | "new sheet" | "flip theme" | "show keys";
  /** Other words by which people look for it. */
  words: string;
}

const go = (title: string, href: string, words = ""): Command => ({
  ...{ kind: "command", title, detail: "", does: { href }, words },
});

const EVERYWHERE: readonly Command[] = [
  {
    kind: "command",
    title: "Create build sheet",
    detail: "",
    does: "new sheet",
    words: "new build begin plan install",
  },
  go("Add machine", "/machines/new", "add server import"),
  go("Add image", "/images/new", "add file iso"),
  go("Import OS profile", "/images/profiles/new", "add family system"),
  go("Drive inventory", "/machines/drives", "spares disks shelf"),
  go("Import a list of machines", "/machines/list", "csv export import spreadsheet"),
  go("Compatibility notes", "/machines/compatibility", "works does not work"),
  go("Storage planner", "/bench", "raid zfs capacity layout"),
  {
    kind: "command",
    title: "Switch between light and dark theme",
    detail: "",
    does: "flip theme",
    words: "theme dark day night light",
  },
  {
    kind: "command",
    title: "Keyboard shortcuts",
    detail: "",
    does: "show keys",
    words: "keyboard shortcuts help",
  },
];

const ofSheet = (build: string): readonly Command[] => [
  go("History of this build sheet", `/builds/${build}/history`, "revisions changes"),
  go("Commands of this build sheet", `/builds/${build}/commands`, "scripts zpool mdadm"),
  go("Firmware settings of this build sheet", `/builds/${build}/settings`, "print bios"),
];

const KEYS: readonly Command[] = KEY_GROUPS.flatMap((group) =>
  group.keys.map(([key, what]): Command => ({
    ...{ kind: "key", title: `${key}: ${what}`, detail: group.title, does: "show keys", words: "" },
  })),
);

/** The commands and keys that carry all words; without words the commands alone. */
export function commandsFor(query: string, build: string): Command[] {
  const words = query.toLowerCase().split(/\s+/).filter(Boolean);
  const all = [...(build ? ofSheet(build) : []), ...EVERYWHERE];
  if (words.length === 0) return all;
  const carries = ({ title, detail, words: more }: Command): boolean =>
    words.every((w) => `${title} ${detail} ${more}`.toLowerCase().includes(w));
  return [...all.filter(carries), ...KEYS.filter(carries).slice(0, 4)];
}
