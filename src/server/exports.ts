import { sql } from "drizzle-orm";
import type { Answer } from "@/contract";
import { parseProfileYaml } from "@/core/image";
import { Integrity, itemsOf, parseExport, rebaseExport, type Export, type Item } from "@/core/record";
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
    const looked = await look(items());
    if (!looked.ok) return looked;
    const { db, write } = desk;
    if (!(await isEmpty(db))) return no(NOT_EMPTY);
    const answer = await write(async (tx): Promise<Answer<Imported>> => {
      if (!(await isEmpty(tx))) return no(NOT_EMPTY);
      await putIn(tx, items(), { at, by: desk.actor }, looked.value);
      const { machines, builds, pictures } = looked.value;
      return yes({ machines, builds, pictures });
    });
    await addShippedProfiles(desk);
    return answer;
  } catch (error) {
    if (error instanceof ArchiveError) return no(error.message);
    throw error;
  }
}

const NOT_EMPTY =
  "This installation already has data. Import an archive into an empty one: set a new database in DERRICK_DB_URL.";

/** Whether an archive can be read in. */
export const takesArchive = async (desk: Desk): Promise<boolean> => isEmpty(desk.db);

/** Nothing that a person made: profiles that ship with Derrick do not count, editions of their own do. */
async function isEmpty(db: Db | Tx): Promise<boolean> {
  for (const kind of KINDS) if ((await damagedRows.ids(db, kind)).length > 0) return false;
  return (await profileRows.all(db)).every((p) => p.by === "");
}

/** The whole of it goes by once, and nothing is written. */
async function look(items: AsyncIterable<Arriving>): Promise<Answer<Imported & { drives: number }>> {
  const integrity = new Integrity();
  const counts = new Map<Item["kind"], number>();
  for await (const arrived of items) {
    integrity.watch(arrived);
    const { item, place } = arrived;
    counts.set(item.kind, (counts.get(item.kind) ?? 0) + 1);
    if (item.kind === "profile" && !parseProfileYaml(item.yaml).ok)
      return no(`${place}: the profile ${item.key} ${item.version} is not valid.`);
  }
  const problems = integrity.problems();
  if (problems.length > 0) return no(...problems);
  const count = (kind: Item["kind"]): number => counts.get(kind) ?? 0;
  return yes({
    ...{ machines: count("machine"), builds: count("build"), pictures: count("picture") },
    drives: count("drive"),
  });
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
