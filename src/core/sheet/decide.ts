import { usualAccounts } from "../answers";
import { takenBack, type Edit } from "../document";
import { waiverSchema } from "../finding";
import type { Profile } from "../image";
import { fail, ok, type Result } from "../result";
import type { Site } from "../site";
import { consentTo } from "../storage";
import { adoptMachine, type ChosenMachine } from "./adopt";
import { applyEdits, diffSheets, signedAnew } from "./edits";
import { evaluateSheet } from "./evaluate";
import type { Plan } from "./plan";
import type { Sheet } from "./sheet";

/** What a person does to a sheet. None carries who and when: that is the desk's to say. */
export type SheetAct =
  | { act: "edit"; edits: readonly Edit[] }
  | { act: "agree to erase"; drive: string; typed: string }
  | { act: "set aside"; key: string; reason: string }
  /** Takes back one save with all that it brought along. */
  | { act: "take back"; edits: readonly Edit[] };

/** Who acts, when, and what was found of that which the act chooses. */
export interface ActGround {
  by: string;
  at: string;
  /** The machine that an edit chooses, with its site; null when it is not there. */
  chosen: { machine: ChosenMachine; site: Site | null } | null;
  /** Whether the image that an edit chooses is there. */
  hasImage: boolean;
  /** The newest edition of the profile of the image that an edit chooses; null when there is none. */
  newestEdition: number | null;
  /** The profile of that image; null when there is none. */
  profile: Profile | null;
}

const newValue = (edits: readonly Edit[], path: string): unknown => edits.find((e) => e.path === path)?.after;

/** The ids that edits choose, so that they can be looked up before the act is decided. */
export function chosenIn(edits: readonly Edit[]): { machine: string | null; image: string | null } {
  const [machine, image] = [newValue(edits, "machine.id"), newValue(edits, "image.id")];
  return {
    machine: typeof machine === "string" ? machine : null,
    image: typeof image === "string" ? image : null,
  };
}

/** An edit with what follows from choosing a machine or an image. A signature may end by it, and never begin. */
function edited(sheet: Sheet, edits: readonly Edit[], ground: ActGround): Result<Sheet> {
  const applied = applyEdits(sheet, edits);
  if (!applied.ok) return applied;
  const forged = signedAnew(sheet, applied.value);
  if (forged) return fail({ message: forged });
  let next = applied.value;
  const { machine, image } = chosenIn(edits);
  if (image !== null && !ground.hasImage) return fail({ message: "This image no longer exists." });
  if (machine !== null) {
    if (!ground.chosen) return fail({ message: "This machine no longer exists." });
    next = adoptMachine(next, ground.chosen.machine, ground.chosen.site);
  }
  return edits.some((e) => e.path === "image.id") ? ok(withImage(next, ground)) : ok(next);
}

/**
 * What follows from choosing an image. A later edition of its profile does not change the steps: the sheet keeps the one
 * that is the newest now. A sheet without accounts gets those that its family usually has.
 */
function withImage(sheet: Sheet, { newestEdition, profile, by }: ActGround): Sheet {
  const { accounts } = sheet.answers;
  const usual = accounts.length === 0 && profile ? usualAccounts(profile, by) : accounts;
  return {
    ...sheet,
    image: { ...sheet.image, edition: newestEdition },
    answers: { ...sheet.answers, accounts: usual },
  };
}

function agreed(plan: Plan, drive: string, typed: string, { by, at }: ActGround): Result<Sheet> {
  const consent = consentTo(plan, drive, typed, by, at);
  if (!consent.ok) return consent;
  const { sheet } = plan;
  const erase = [...sheet.storage.erase.filter((c) => c.drive !== drive), consent.value];
  return ok({ ...sheet, storage: { ...sheet.storage, erase } });
}

function setAside(plan: Plan, key: string, reason: string, { by, at }: ActGround): Result<Sheet> {
  const finding = evaluateSheet(plan).findings.find((f) => f.key === key);
  if (!finding) return fail({ message: "This finding no longer exists." });
  if (!finding.waivable)
    return fail({
      message: "This blocker protects data and cannot be waived. Correct its cause instead.",
    });
  const waiver = waiverSchema.safeParse({ key, reason, by, at, basis: finding.basis });
  if (!waiver.success) return fail({ message: waiver.error.issues[0]?.message ?? "The reason is missing." });
  const { sheet } = plan;
  return ok({ ...sheet, waivers: [...sheet.waivers.filter((w) => w.key !== key), waiver.data] });
}

function back(sheet: Sheet, edits: readonly Edit[]): Result<Sheet> {
  const inverse = takenBack(sheet, edits);
  return inverse.ok ? applyEdits(sheet, inverse.value) : inverse;
}

function after(plan: Plan, act: SheetAct, ground: ActGround): Result<Sheet> {
  switch (act.act) {
    case "edit":
      return edited(plan.sheet, act.edits, ground);
    case "agree to erase":
      return agreed(plan, act.drive, act.typed, ground);
    case "set aside":
      return setAside(plan, act.key, act.reason, ground);
    case "take back":
      return back(plan.sheet, act.edits);
  }
}

/**
 * What an act amounts to: all that changes on the sheet, its consequences included, so that the inverse of these edits
 * takes it back whole. An act that cannot be is a problem in words.
 */
export function decideSheet(plan: Plan, act: SheetAct, ground: ActGround): Result<Edit[]> {
  const next = after(plan, act, ground);
  if (!next.ok) return next;
  const taken = act.act === "edit" ? act.edits.filter((e) => e.from !== undefined) : [];
  return ok(
    diffSheets(plan.sheet, next.value).map((edit) => {
      const source = taken.find(({ path }) => edit.path === path || edit.path.startsWith(`${path}.`));
      return source ? { ...edit, from: source.from } : edit;
    }),
  );
}
