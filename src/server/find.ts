import type { FindAnswer, Found } from "@/contract";
import { partsWith } from "@/core/machine";
import { STAGES, wayTo } from "@/core/sheet";
import { nearQuery, wordsIn } from "@/core/text";
import { buildRows, claimRows, imageRows, machineRows, profileRows, runRows, siteRows } from "@/db";
import { sourcesOf } from "./sources";
import { keptJudgement } from "./marks";
import { explainAddress } from "./addresses";
import type { Desk } from "./desk";

const MOST = 24;
const MOST_DATES = 6;

/** Something that is found by its texts. */
type Entry = Found & { texts: readonly (string | null)[] };

/** What stands in few documents, and is looked through as a whole. */
async function shelfEntries({ db }: Desk): Promise<Entry[]> {
  const [images, sites, profiles] = await Promise.all([
    imageRows.all(db),
    siteRows.all(db),
    profileRows.newest(db),
  ]);
  return [
    ...images.map(({ id, image: { name, version, fileName } }): Entry => ({
      ...{ kind: "image", title: name, detail: fileName, href: `/images/${id}` },
      texts: [name, version, fileName],
    })),
    ...sites.flatMap(({ id, site }): Entry[] => [
      {
        ...{ kind: "site", title: site.name, detail: site.room, href: `/sites/${id}` },
        texts: [site.name, site.room, site.domain],
      },
      ...site.segments.map((s): Entry => ({
        ...{ kind: "segment", title: s.name, detail: `${s.prefix}, ${site.name}`, href: `/sites/${id}` },
        texts: [s.name, s.prefix, s.purpose, s.vlan === null ? "" : `vlan ${s.vlan}`],
      })),
      ...site.devices.map((d): Entry => ({
        ...{ kind: "thing", title: d.name, href: `/sites/${id}/wiring` },
        detail: [d.kind, d.address, d.place, site.name].filter(Boolean).join(", "),
        texts: [d.name, d.kind, d.address, d.place],
      })),
    ]),
    ...profiles.map(({ key, name, version }): Entry => ({
      ...{ kind: "profile", title: `${name} ${version}`, detail: "OS profile" },
      ...{ href: `/images/profiles/${key}/${version}`, texts: [name, version] },
    })),
  ];
}

/** Zones, findings and steps of the sheet that is open. */
async function sheetEntries(desk: Desk, id: string): Promise<Entry[]> {
  const build = await buildRows.one(desk.db, id);
  if (!build) return [];
  const { findings, steps } = keptJudgement(id, await sourcesOf(desk, id, build.sheet)).evaluation;
  return [
    ...STAGES.map(({ zone, title }): Entry => ({
      ...{ kind: "zone", title: `${zone} ${title}`, detail: `zone of ${build.number}` },
      ...{ href: `/builds/${id}#zone-${zone}`, texts: [`zone ${zone}`, title] },
    })),
    ...findings.map((f): Entry => ({
      ...{ kind: "finding", title: `${f.label} ${f.title}`, detail: f.says },
      ...{ href: `/builds/${id}#${f.label}`, texts: [f.title, f.says] },
    })),
    ...steps.map((s): Entry => ({
      ...{ kind: "step", title: s.title, detail: `step of ${build.number}` },
      ...{ href: `/builds/${id}#zone-${s.zone}`, texts: [s.title] },
    })),
  ];
}

const MOST_OF: Readonly<Partial<Record<Found["kind"], number>>> = { step: 6 };

/** The entries in whose texts all words stand; one that is called by its label alone ("d2") goes first. */
function among(entries: readonly Entry[], words: readonly string[]): Found[] {
  const query = words.join(" ");
  const isCalled = ({ title, texts }: Entry): boolean =>
    title.toLowerCase().startsWith(`${query} `) || texts[0]?.toLowerCase() === query;
  const carries = ({ texts }: Entry): boolean => {
    const all = texts.join(" ").toLowerCase();
    return words.every((w) => all.includes(w));
  };
  const counts = new Map<string, number>();
  const called = entries.filter(isCalled);
  const others = entries.filter((e) => !called.includes(e) && carries(e));
  return [...called, ...others].flatMap(({ texts: _, ...found }) => {
    const n = (counts.get(found.kind) ?? 0) + 1;
    counts.set(found.kind, n);
    return n <= (MOST_OF[found.kind] ?? MOST) ? [found] : [];
  });
}

/** Machines, sheets and days, which the database looks for. */
async function kept({ db }: Desk, words: readonly string[]): Promise<Found[]> {
  const [{ machines, builds }, dates] = await Promise.all([
    claimRows.findWords(db, words, MOST),
    claimRows.findDates(db, words, MOST_DATES),
  ]);
  const runs = await runRows.ofBuilds(
    db,
    builds.map((b) => b.id),
  );
  return [
    ...machines.map((m): Found => ({
      ...{ kind: "machine", title: m.name, href: `/machines/${m.id}` },
      detail: [m.serial, m.address].filter(Boolean).join(" · "),
    })),
    ...builds.map((b): Found => ({
      ...{ kind: "build", title: `${b.number} ${b.subject}`, detail: b.machine ?? "" },
      href: wayTo(b.id, runs.get(b.id) ?? null),
    })),
    ...dates.map((d): Found => ({
      ...{ kind: "date", title: d.key, detail: [d.machine, d.number].filter(Boolean).join(", ") },
      href: d.owner === "build" ? `/builds/${d.ownerId}` : `/machines/${d.ownerId}`,
    })),
  ];
}

/** At so many machines that a word names, their parts are looked through. */
const MOST_WITH_PARTS = 6;

/**
 * Parts of a machine that is called by some of the words, in which the others stand: "wrk-hv1 mac" finds its MACs. The
 * machine goes by its name, so that its whole document is loaded for few.
 */
async function partEntries({ db }: Desk, words: readonly string[]): Promise<Found[]> {
  if (words.length < 2) return [];
  const called = await Promise.all(words.map((word) => claimRows.findWords(db, [word], MOST_WITH_PARTS)));
  const names = new Map(called.flatMap(({ machines }) => machines.map((m) => [m.id, m.name.toLowerCase()])));
  const asked = [...names].flatMap(([id, name]) => {
    const others = words.filter((w) => !name.includes(w));
    return others.length > 0 && others.length < words.length ? [{ id, others }] : [];
  });
  const rows = await machineRows.some(
    db,
    asked.map((a) => a.id),
  );
  return asked.flatMap(({ id, others }) => {
    const row = rows.find((r) => r.id === id);
    return row
      ? partsWith(row.document, others).map((p): Found => ({
          ...{ kind: "machine", title: `${row.name}: ${p.label}`, detail: p.value, href: `/machines/${id}` },
        }))
      : [];
  });
}

/**
 * Finds machines (by name, serial, MAC or address), images, sheets, sites, segments, dates and profiles by any part of their
 * words, and parts of a machine by its name and theirs ("wrk-hv1 mac"). With the sheet that is open, also its zones, its findings by label ("d2") or words, and its steps. Where nothing
 * carries the words, the words that stand nowhere are taken for slips of the nearest ones.
 */
export async function find(desk: Desk, query: string, openBuild: string | null): Promise<FindAnswer> {
  const address = await explainAddress(desk, query);
  const { found, meant } = await findWords(desk, address?.address ?? query, openBuild);
  if (!address) return { found, meant, explained: [] };
  const site: Found[] = address.siteId
    ? [{ kind: "address", title: address.address, detail: "", href: `/sites/${address.siteId}` }]
    : [];
  const { machine } = address;
  const made: Found[] = machine
    ? [
        {
          kind: "machine",
          title: machine.name,
          detail: "address contains the MAC",
          href: `/machines/${machine.id}`,
        },
      ]
    : [];
  // What an address is like in its letters is not what it is.
  const own = meant === null ? found : [];
  const more = made.filter((m) => !own.some((f) => f.href === m.href));
  return { found: [...own, ...more, ...site], meant: null, explained: address.says };
}

async function findWords(desk: Desk, query: string, openBuild: string | null) {
  const words = query.toLowerCase().split(/\s+/).filter(Boolean);
  if (words.length === 0) return { found: [], meant: null };
  const [sheet, shelf] = await Promise.all([
    openBuild ? sheetEntries(desk, openBuild) : [],
    shelfEntries(desk),
  ]);
  const search = async (of: readonly string[]): Promise<Found[]> =>
    [
      ...among(sheet, of),
      ...(await kept(desk, of)),
      ...(await partEntries(desk, of)),
      ...among(shelf, of),
    ].slice(0, MOST);
  const found = await search(words);
  if (found.length > 0) return { found, meant: null };
  const texts = [...sheet, ...shelf].flatMap((e) => e.texts).filter((t) => t !== null);
  const near = nearQuery(words, wordsIn([...texts, ...(await claimRows.nameTexts(desk.db))]));
  return near ? { found: await search(near), meant: near.join(" ") } : { found: [], meant: null };
}
