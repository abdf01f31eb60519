import type { Item, ItemKind, PlacedItem } from "./items";

/** What one item calls itself, and what it must find; `told` is how a person names it. */
interface Claims {
  /** Names that no other item may have. */
  own: { kind: string; name: string; told: string }[];
  needs: { kind: ItemKind; id: string }[];
}

const named = (kind: string, name: string, told = `${kind} ${name}`) => ({ kind, name, told });
const need = (kind: ItemKind, id: string | null) => (id === null ? [] : [{ kind, id }]);

function claimsOf(item: Item): Claims {
  switch (item.kind) {
    case "site":
    case "image":
    case "note":
      return { own: [named(item.kind, item.id)], needs: [] };
    case "damaged":
      return {
        own: [named(item.of, item.id)],
        needs: Object.entries(COLUMNS).flatMap(([column, kind]) => {
          const id = item.row[column];
          return typeof id === "string" ? need(kind, id) : [];
        }),
      };
    case "profile": {
      const name = `${item.key} ${item.version} revision ${item.edition}`;
      return { own: [named("profile", name)], needs: [] };
    }
    case "machine":
      return {
        own: [
          named("machine", item.id),
          named("machine name", `${item.siteId} ${item.name}`, `machine named ${item.name} at its site`),
        ],
        needs: need("site", item.siteId),
      };
    case "drive":
      return { own: [named("drive", item.key)], needs: [] };
    case "readings":
      return {
        own: [named("readings", item.machineId, `measurements of ${item.machineId}`)],
        needs: need("machine", item.machineId),
      };
    case "picture":
    case "import":
      return { own: [named(item.kind, item.id)], needs: need("machine", item.machineId) };
    case "build":
      return {
        own: [named("build", item.id), named("number", item.number, `build sheet ${item.number}`)],
        needs: [...need("machine", item.sheet.machine.id), ...need("image", item.sheet.image.id)],
      };
    case "run":
      return { own: [named("run", item.id)], needs: need("build", item.buildId) };
    case "transfer":
    case "time":
      return {
        own: [named(item.kind, `${item.runId} ${item.step}`)],
        needs: need("run", item.runId),
      };
  }
}

/** References of a row that is carried as it stood, by its columns. */
const COLUMNS: Record<string, ItemKind> = {
  site_id: "site",
  machine_id: "machine",
  image_id: "image",
  build_id: "build",
};

/** What is wrong with one item by itself: numbers of a log or a history that do not follow each other. */
function flawsOf(item: Item): string[] {
  if (item.kind === "run") {
    const wrong = item.log.findIndex((l, i) => l.seq !== i + 1);
    const keys = item.log.map((l) => l.key);
    const twice = keys.find((k, i) => keys.indexOf(k) !== i);
    return [
      ...(wrong >= 0
        ? [
            `its log has number ${item.log[wrong]!.seq} instead of ${wrong + 1}: an entry is missing, duplicated or out of order`,
          ]
        : []),
      ...(twice !== undefined ? [`its log has the key ${twice} twice`] : []),
    ];
  }
  if (item.kind === "build") {
    const versions = item.history.map((h) => h.version);
    const twice = versions.find((v, i) => versions.indexOf(v) !== i);
    return twice === undefined ? [] : [`its history has the version ${twice} twice`];
  }
  return [];
}

/**
 * Watches the items of an installation go by and says what does not fit together: names that stand twice, references that
 * lead nowhere, logs with gaps. It keeps names only, so that any number can pass.
 */
export class Integrity {
  private readonly seen = new Map<string, string>();
  private readonly wanted: { key: string; says: string }[] = [];
  private readonly flaws: string[] = [];

  watch({ item, place }: PlacedItem): void {
    const { own, needs } = claimsOf(item);
    for (const { kind, name, told } of own) {
      const key = keyOf(kind, name);
      const before = this.seen.get(key);
      if (before !== undefined) this.flaws.push(`${place}: the ${told} is already in ${before}`);
      this.seen.set(key, place);
    }
    for (const { kind, id } of needs) {
      const key = keyOf(kind, id);
      if (!this.seen.has(key))
        this.wanted.push({ key, says: `${place}: it refers to the ${kind} ${id}, which is not in the file` });
    }
    for (const flaw of flawsOf(item)) this.flaws.push(`${place}: ${flaw}`);
  }

  /** What does not fit, when all items have gone by; at most `most` of it. */
  problems(most = 10): string[] {
    const lost = this.wanted.filter((w) => !this.seen.has(w.key)).map((w) => w.says);
    return [...this.flaws, ...lost].slice(0, most);
  }
}

const keyOf = (kind: string, name: string): string => `${kind}\u0000${name}`;
