import { wayTo } from "@/core/sheet";
import { buildRows, claimRows, imageRows, profileRows, runRows, siteRows } from "@/db";
import { sourcesOf } from "./sources";
import { keptJudgement } from "./marks";
import type { Desk } from "./desk";

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
export async function find(desk: Desk, query: string, openBuild: string | null): Promise<Found[]> {
  const { db } = desk;
  const words = query.toLowerCase().split(/\s+/).filter(Boolean);
  if (words.length === 0) return [];
  const hits = (...texts: (string | null)[]): boolean => {
    const all = texts.join(" ").toLowerCase();
    return words.every((w) => all.includes(w));
  };
  const [found, images, sites, profiles] = await Promise.all([
    claimRows.findWords(db, words, MOST),
    imageRows.all(db),
    siteRows.all(db),
    profileRows.newest(db),
  ]);
  const runs = await runRows.ofBuilds(
    db,
    found.builds.map((b) => b.id),
  );
  return [
    ...(openBuild ? await insideBuild(desk, openBuild, query.trim().toLowerCase(), hits) : []),
    ...found.machines.map((m): Found => ({
      kind: "machine",
      title: m.name,
      detail: [m.serial, m.address].filter(Boolean).join(" · "),
      href: `/machines/${m.id}`,
    })),
    ...found.builds.map((b): Found => ({
      kind: "build",
      title: `${b.number} ${b.subject}`,
      detail: b.machine ?? "",
      href: wayTo(b.id, runs.get(b.id) ?? null),
    })),
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
  desk: Desk,
  id: string,
  query: string,
  hits: (...texts: string[]) => boolean,
): Promise<Found[]> {
  const { db } = desk;
  const build = await buildRows.one(db, id);
  if (!build) return [];
  const { findings, steps } = keptJudgement(id, await sourcesOf(desk, id, build.sheet)).evaluation;
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
