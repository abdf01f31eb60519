// npm run claims [-- --write]: compares the table of claims with what the documents claim, and with --write makes it anew.
import { claimRows, machineRows, buildRows, siteRows } from "@/db";
import { machineClaims, type Claim } from "@/core/claims";
import { sheetClaims } from "@/core/sheet";
import { siteClaims } from "@/core/site";
import { closeDatabase, database } from "@/server/database";

const { db, write } = await database();
const [machines, builds, sites] = await Promise.all([
  machineRows.all(db),
  buildRows.all(db),
  siteRows.all(db),
]);
const owners: [owner: string, id: string, called: string, claims: Claim[]][] = [
  ...machines.map((m) => ["machine", m.id, m.name, machineClaims(m.document, m.name)] as const),
  ...builds.map((b) => ["build", b.id, b.number, sheetClaims(b.sheet, b.number)] as const),
  ...sites.map((s) => ["site", s.id, s.site.name, siteClaims(s.site)] as const),
].map((row) => [...row]);

let wrong = 0;
for (const [owner, id, called, wanted] of owners) {
  const line = (c: Claim): string => `${c.kind}: ${c.key}`;
  const standing = (await claimRows.ofOwner(db, owner, id)).map(line);
  const missing = wanted.map(line).filter((l) => !standing.includes(l));
  const more = standing.filter((l) => !wanted.map(line).includes(l));
  wrong += missing.length + more.length;
  for (const l of missing) console.log(`${owner} ${called}: missing in the table: ${l}`);
  for (const l of more) console.log(`${owner} ${called}: only in the table: ${l}`);
  if (process.argv.includes("--write") && missing.length + more.length > 0)
    await write((tx) => claimRows.put(tx, owner, id, wanted));
}
const known = new Set(owners.map(([owner, id]) => `${owner} ${id}`));
const lost = (await claimRows.owners(db)).filter((o) => !known.has(`${o.owner} ${o.ownerId}`));
for (const { owner, ownerId } of lost)
  console.log(`${owner} ${ownerId}: in the table, but its document is missing or damaged`);
const total = wrong + lost.length;
const all = owners.reduce((sum, [, , , claims]) => sum + claims.length, 0);
console.log(
  total === 0
    ? `${all} claims of ${owners.length} documents: the table is correct.`
    : `${total} differences${process.argv.includes("--write") ? ", corrected" : "; correct them with: npm run claims -- --write"}.`,
);
await closeDatabase();
process.exitCode = total === 0 || process.argv.includes("--write") ? 0 : 1;
