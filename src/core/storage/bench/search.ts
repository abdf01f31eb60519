import { fail, ok, type Result } from "../../result";
import { candidateOf, type Candidate } from "./candidate";
import { layoutsOf } from "./layout";
import { classOf, parseDrives, type Question } from "./question";
import { layoutName } from "./words.en";

/** A candidate, and why it is folded away; null where it stands. */
export interface Judged extends Candidate {
  name: string;
  folded: string | null;
}

export interface BenchAnswer {
  sizes: number[];
  candidates: Judged[];
}

/** More drives than this are laid out as several benches: a pool of a hundred drives is planned in shelves. */
const MOST_SEARCHED = 90;

/** Why a candidate does not do what is wished; null where it does. */
function lacks({ survive, least }: Question, { survival, usableBytes }: Candidate): string | null {
  if (survival.worst < survive)
    return survival.worst === 0
      ? "no fault tolerance"
      : `tolerates only any ${survival.worst} drive ${survival.worst === 1 ? "failure" : "failures"}`;
  return least !== null && usableBytes < least ? "less than the minimum usable capacity" : null;
}

const ORDER: Readonly<Record<Question["use"], (a: Candidate, b: Candidate) => number>> = {
  guests: (a, b) => b.writes - a.writes || b.usableBytes - a.usableBytes,
  database: (a, b) => b.writes - a.writes || a.loss - b.loss,
  "bulk files": (a, b) => b.usableBytes - a.usableBytes || a.loss - b.loss,
  backup: (a, b) => b.usableBytes - a.usableBytes || a.loss - b.loss,
  boot: (a, b) => a.used - b.used || a.loss - b.loss,
};

/** At least as good in all that is compared, and better in something; only within a school, which is chosen for other reasons. */
function dominates(a: Candidate, b: Candidate): boolean {
  if (a.layout.kind.school !== b.layout.kind.school) return false;
  const better = [
    a.usableBytes - b.usableBytes,
    b.loss - a.loss,
    b.rebuild.likely - a.rebuild.likely,
    a.writes - b.writes,
    a.survival.worst - b.survival.worst,
    b.used - a.used,
  ];
  return better.every((d) => d >= 0) && better.some((d) => d > 0);
}

/** Every layout of the question's drives: those that do what is wished first, by what the use asks; the others folded. */
export function searchLayouts(question: Question): Result<BenchAnswer> {
  const read = parseDrives(question.drives);
  return read.ok ? searchOver(read.value, question) : read;
}

/** The same for drives that are given by their bytes: places of the layouts are those of this list. */
export function searchOver(sizes: number[], question: Question): Result<BenchAnswer> {
  if (sizes.length > MOST_SEARCHED)
    return fail({
      message: `${sizes.length} drives are too many for one plan: the limit is ${MOST_SEARCHED}.`,
    });
  if (sizes.length <= question.spares + question.free)
    return fail({
      message: `Of ${sizes.length} drives ${question.spares} are hot spares and ${question.free} are unused: none is left.`,
    });
  const drive = classOf(question);
  const { school } = question;
  const layouts = layoutsOf(sizes, question.spares, question.free);
  const all = layouts
    .filter((l) => school === "any" || l.kind.school === school)
    .map((l) => candidateOf(l, sizes, drive, question));
  const able = all.filter((c) => lacks(question, c) === null);
  const judged = all.map((c): Judged => {
    const name = layoutName(c.layout);
    const lacking = lacks(question, c);
    if (lacking) return { ...c, name, folded: lacking };
    const by = able.find((o) => o !== c && dominates(o, c));
    return {
      ...c,
      name,
      folded: by ? `${layoutName(by.layout)} is equal or better in every respect` : null,
    };
  });
  const order = ORDER[question.use];
  return ok({
    sizes,
    candidates: judged.sort((a, b) => Number(a.folded !== null) - Number(b.folded !== null) || order(a, b)),
  });
}
