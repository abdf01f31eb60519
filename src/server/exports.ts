import { sql } from "drizzle-orm";
import type { Answer } from "@/contract";
import { parseProfileYaml } from "@/core/image";
import { heldBy, holdWords } from "@/core/finding";
import {
  Integrity,
  itemsOf,
  parseExport,
  rebaseExport,
  RESTORE_GATE,
  type Export,
  type Item,
  type RestoreGround,
} from "@/core/record";
import { damagedRows, KINDS, profileRows, type Db, type Stamp, type Tx } from "@/db";
import { no, yes } from "./answer";
import { insertItem } from "./archive/insert";
import { ArchiveError, arriving, type Arriving } from "./archive/read";
import { sightAll } from "./imports";
import { addShippedProfiles } from "./profiles";
import type { Desk } from "./desk";

export interface Imported {
  machines: number;
  builds: number;
  pictures: number;
}

/** Reads an archive file into an empty installation: looked through in full first, then all of it or nothing. */
export const importArchive = (
  desk: Desk,
  path: string,
  options: { rebase: boolean },
): Promise<Answer<Imported>> => {
  const at = desk.now();
  return take(desk, () => arriving(path, options.rebase ? at : null), at);
};

/** Reads an export of the older form, one JSON text, in the same way. */
export async function importAll(
  desk: Desk,
  text: string,
  options: { rebase: boolean },
): Promise<Answer<Imported>> {
  const read = parseExport(text);
  if (!read.ok) return { ok: false, problems: read.problems };
  const at = desk.now();
  const file = options.rebase ? rebaseExport(read.value, at) : read.value;
  return take(desk, () => fromExport(file), at);
}

async function* fromExport(file: Export): AsyncGenerator<Arriving> {
  const bytes = new Map(file.pictures.map((p) => [p.id, p.base64]));
  for (const { item, place } of itemsOf(file))
    yield {
      item,
      place,
      files: item.kind === "picture" ? [Buffer.from(bytes.get(item.id) ?? "", "base64")] : [],
    };
}

async function take(desk: Desk, items: () => AsyncIterable<Arriving>, at: string): Promise<Answer<Imported>> {
  try {
    const { found, counts } = await look(items());
    const { db, write } = desk;
    const held = heldBy(RESTORE_GATE, { ...found, hasData: !(await isEmpty(db)) });
    if (held.length > 0) return no(...held.map(holdWords));
    const answer = await write(async (tx): Promise<Answer<Imported>> => {
      // Others may have begun here while the archive was looked through.
      const late = heldBy(RESTORE_GATE, { ...found, hasData: !(await isEmpty(tx)) });
      if (late.length > 0) return no(...late.map(holdWords));
      await putIn(tx, items(), { at, by: desk.actor }, counts);
      const { machines, builds, pictures } = counts;
      return yes({ machines, builds, pictures });
    });
    await addShippedProfiles(desk);
    return answer;
  } catch (error) {
    if (error instanceof ArchiveError) return no(error.message);
    throw error;
  }
}

/** Whether an archive can be read in. */
export const takesArchive = async (desk: Desk): Promise<boolean> => isEmpty(desk.db);

/** Nothing that a person made: profiles that ship with Derrick do not count, editions of their own do. */
async function isEmpty(db: Db | Tx): Promise<boolean> {
  for (const kind of KINDS) if ((await damagedRows.ids(db, kind)).length > 0) return false;
  return (await profileRows.all(db)).every((p) => p.by === "");
}

/** The whole of it goes by once, and nothing is written: what it holds, and what keeps it from being imported. */
async function look(
  items: AsyncIterable<Arriving>,
): Promise<{ found: Omit<RestoreGround, "hasData">; counts: Imported & { drives: number } }> {
  const integrity = new Integrity();
  const counts = new Map<Item["kind"], number>();
  const profiles: { place: string; name: string }[] = [];
  for await (const arrived of items) {
    integrity.watch(arrived);
    const { item, place } = arrived;
    counts.set(item.kind, (counts.get(item.kind) ?? 0) + 1);
    if (item.kind === "profile" && !parseProfileYaml(item.yaml).ok)
      profiles.push({ place, name: `${item.key} ${item.version}` });
  }
  const count = (kind: Item["kind"]): number => counts.get(kind) ?? 0;
  return {
    found: { profiles, contradictions: integrity.problems() },
    counts: {
      machines: count("machine"),
      builds: count("build"),
      pictures: count("picture"),
      drives: count("drive"),
    },
  };
}

async function putIn(
  tx: Tx,
  items: AsyncIterable<Arriving>,
  stamp: Stamp,
  { drives }: { drives: number },
): Promise<void> {
  // Damaged rows come as they stood, before or after what they refer to; what leads nowhere fails at the end, as a whole.
  await tx.run(sql`PRAGMA defer_foreign_keys = ON`);
  await profileRows.clear(tx);
  const open = new Set<string>();
  for await (const arrived of items) {
    await insertItem(tx, arrived, stamp, open);
    // Files from before there was a register: it begins with what the machines hold now.
    if (drives === 0 && arrived.item.kind === "machine") await sightAll(tx, arrived.item, stamp);
  }
}
