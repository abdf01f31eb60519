import { evaluateBuild } from "@/core/build";
import { buildRows, imageRows, machineRows, profileRows, runRows, siteRows } from "@/db";
import { contextOf, surroundings } from "./builds";
import { database } from "./database";

export interface Found {
  kind: "machine" | "image" | "build" | "site" | "profile" | "finding" | "step";
  title: string;
  detail: string;
  href: string;
}

const MOST = 24;

/**
 * Finds machines (by name, serial, MAC or address), images, sheets, sites and profiles by any part of their words. With
 * the sheet that is open, also its findings by label ("d2") or words, and its steps.
 */
export async function find(query: string, openBuild: string | null): Promise<Found[]> {
  const { db } = await database();
  const words = query.toLowerCase().split(/\s+/).filter(Boolean);
  if (words.length === 0) return [];
  const hits = (...texts: (string | null)[]): boolean => {
    const all = texts.join(" ").toLowerCase();
    return words.every((w) => all.includes(w));
  };
  const [machines, images, builds, sites, profiles, runs] = await Promise.all([
    machineRows.marks(db),
    imageRows.all(db),
    buildRows.marks(db),
    siteRows.all(db),
    profileRows.newest(db),
    runRows.marks(db),
  ]);
  const machineName = (id: string | null): string => machines.find((m) => m.id === id)?.name ?? "";
  return [
    ...(openBuild ? await insideBuild(openBuild, query.trim().toLowerCase(), hits) : []),
    ...machines
      .filter((m) => hits(m.name, m.serial, ...m.macs, ...m.addresses, ...m.hostNames))
      .map((m): Found => ({
        kind: "machine",
        title: m.name,
        detail: [m.serial, m.addresses[0]].filter(Boolean).join(" · "),
        href: `/machines/${m.id}`,
      })),
    ...builds
      .filter((b) => hits(b.number, b.subject, b.hostName, b.address, machineName(b.machineId)))
      .map((b): Found => {
        const run = runs.find((r) => r.buildId === b.id);
        return {
          kind: "build",
          title: `${b.number} ${b.subject}`,
          detail: machineName(b.machineId),
          href: run && !run.endedAt ? `/runs/${run.id}` : `/builds/${b.id}`,
        };
      }),
    ...images
      .filter((i) => hits(i.image.name, i.image.version, i.image.fileName))
      .map((i): Found => ({
        kind: "image",
        title: i.image.name,
        detail: i.image.fileName,
        href: `/images/${i.id}`,
      })),
    ...sites
      .filter((s) => hits(s.site.name, s.site.room, s.site.domain))
      .map((s): Found => ({ kind: "site", title: s.site.name, detail: s.site.room, href: `/sites/${s.id}` })),
    ...profiles
      .filter((p) => hits(p.name, p.version))
      .map((p): Found => ({
        kind: "profile",
        title: `${p.name} ${p.version}`,
        detail: "OS profile",
        href: `/images/profiles/${p.key}/${p.version}`,
      })),
  ].slice(0, MOST);
}

async function insideBuild(
  id: string,
  query: string,
  hits: (...texts: string[]) => boolean,
): Promise<Found[]> {
  const { db } = await database();
  const build = await buildRows.one(db, id);
  if (!build) return [];
  const { findings, steps } = evaluateBuild(await contextOf(db, id, build.sheet, await surroundings(db)));
  return [
    ...findings
      .filter((f) => f.label.toLowerCase() === query || hits(f.title, f.says))
      .map((f): Found => ({
        kind: "finding",
        title: `${f.label} ${f.title}`,
        detail: f.says,
        href: `/builds/${id}#${f.label}`,
      })),
    ...steps
      .filter((s) => hits(s.title))
      .slice(0, 6)
      .map((s): Found => ({
        kind: "step",
        title: s.title,
        detail: `step of ${build.number}`,
        href: `/builds/${id}#zone-${s.zone}`,
      })),
  ];
}
