import type { Answer } from "@/contract";
import {
  adoptMachine,
  emptySheet,
  nextRevision,
  judgedOf,
  type Ground,
  type BuildView,
  type MachineChoice,
  type Plan,
  type Sheet,
} from "@/core/sheet";
import { heldBy, holdWords } from "@/core/finding";
import { fitsPattern, nextName, patternOf, stemOf } from "@/core/identity";
import { ISSUE_GATE } from "@/core/stage";
import { formatBytes } from "@/core/units";
import { nextFreeAddress, segmentPlan } from "@/core/network";
import { buildRows, claimRows, machineRows, runRows, siteRows, type Db } from "@/db";
import { no, STALE, yes } from "./answer";
import { sourcesOf } from "./sources";
import { keptJudgement } from "./marks";
import { takenAddresses } from "./sites";
import type { Desk } from "./desk";

export type BuildRow = NonNullable<Awaited<ReturnType<typeof buildRows.one>>>;

/** The address plan of the segment that a sheet chose, with everything that stands in it. */
async function addressPlan(db: Db, { site, sheet }: Plan) {
  const segment = site?.segments.find((s) => s.id === sheet.network.segment);
  const here = segment && sheet.machine.id ? await machineRows.siteOf(db, sheet.machine.id) : null;
  return site && segment && here
    ? segmentPlan(segment, await takenAddresses(db, site, here, segment.prefix))
    : [];
}

/** The next free name by the site's pattern, unless the sheet has one of its own: what the sheet and its own machine are called is no clash. */
async function nextNameFor({ db }: Desk, id: string, { site, machine, sheet }: Plan): Promise<string | null> {
  const pattern = site && machine && patternOf(site.naming, machine.document.typed.role);
  const here = pattern && sheet.machine.id ? await machineRows.siteOf(db, sheet.machine.id) : null;
  if (!pattern || !here) return null;
  const taken = await claimRows.namesAt(db, here, stemOf(pattern), {
    ...{ buildId: id, machineId: sheet.machine.id },
  });
  const { hostName } = sheet.answers;
  const isItsOwn = fitsPattern(pattern, hostName) && !taken.includes(hostName.toLowerCase());
  return isItsOwn ? null : nextName(pattern, taken);
}

/** The machines that a sheet can be for. */
export const machineChoices = async (desk: Desk): Promise<MachineChoice[]> => machineRows.choices(desk.db);

export async function buildView(desk: Desk, id: string): Promise<BuildView | null> {
  const { db } = desk;
  const [build, run] = await Promise.all([buildRows.one(db, id), runRows.ofBuild(db, id)]);
  if (!build) return null;
  const sources = await sourcesOf(desk, id, build.sheet);
  const { plan, evaluation } = keptJudgement(id, sources);
  // As it was read: the plan's own machine has the virtual drives that are to be made.
  const { machine } = sources;
  const { site, image, profile, edition, shelf, sticks, profiles } = plan;
  const addresses = await addressPlan(db, plan);
  return {
    build,
    context: { machine, site, image, profile, edition },
    ...judgedOf(plan, evaluation),
    nextFree: nextFreeAddress(
      addresses,
      site?.segments.find((s) => s.id === plan.sheet.network.segment)?.servers,
    ),
    nextName: await nextNameFor(desk, id, plan),
    segmentPlan: addresses,
    run,
    choices: {
      families: familiesOf(profiles),
      images: shelf
        .filter(({ image }) => image.purpose === "installer")
        .map((i) => ({ id: i.id, name: i.image.name })),
      sticks: sticks.map(({ key, entry }) => ({
        key,
        name: `${entry.label || entry.model || key}, ${formatBytes(entry.sizeBytes)}`,
      })),
    },
  };
}

/** Each family once, under the name of its newest version. */
const familiesOf = (profiles: Plan["profiles"]): BuildView["choices"]["families"] => [
  ...new Map(
    profiles.map(({ profile: key, name, family }) => [key, { key, name, family }] as const),
  ).values(),
];

/** What a sheet is judged by, for a page that judges it while somebody types. */
export async function groundOf(desk: Desk, id: string): Promise<Ground | null> {
  const build = await buildRows.one(desk.db, id);
  if (!build) return null;
  const { sheet: _sheet, ...ground } = await sourcesOf(desk, id, build.sheet);
  return ground;
}

/** All sheets, the newest first, each with the name of its machine and its last run. */
export const listBuilds = async (desk: Desk) => buildRows.listed(desk.db);

/** A new sheet; with a machine it starts with the site's usual answers, and with every drive left alone. */
export async function createBuild(desk: Desk, machineId: string | null): Promise<string> {
  const { db, write } = desk;
  const sheet = (machineId && (await forMachine(db, emptySheet(), machineId))) || emptySheet();
  const id = desk.newId("b");
  await write(async (tx) => {
    await buildRows.insert(tx, { id, number: await buildRows.nextNumber(tx), sheet }, desk.stamp());
  });
  return id;
}

/** The sheet for a machine of this id; null when there is none. */
async function forMachine(db: Db, sheet: Sheet, id: string): Promise<Sheet | null> {
  const machine = await machineRows.one(db, id);
  if (!machine) return null;
  return adoptMachine(sheet, machine, (await siteRows.ifSound(db, machine.siteId))?.site ?? null);
}

export const buildHistory = async (desk: Desk, id: string) => buildRows.history(desk.db, id);

/** Issues the next letter for the sheet as it stands. Stops do not prevent it: a revision may be issued for discussion. */
export async function issueRevision(desk: Desk, id: string, version: number): Promise<Answer<string>> {
  const { db, write } = desk;
  const build = await buildRows.one(db, id);
  if (!build) return no("This build no longer exists.");
  const held = heldBy(ISSUE_GATE, {
    revision: build.revision,
    isIssued: build.revision !== null && build.revisionVersion === build.version,
  });
  if (held.length > 0) return no(...held.map(holdWords));
  const letter = nextRevision(build.revision);
  return (await write((tx) => buildRows.issue(tx, id, version, letter, desk.stamp())))
    ? yes(letter)
    : no(STALE);
}
