import { basename } from "node:path";
import { z } from "zod";
import {
  hoursToLoss,
  lossWithin,
  meanHours,
  naiveHours,
  survival,
  unreadable,
  type Reliability,
} from "@/core/storage/reliability";
import { eachCase, listsOf, measuredOnes, type Compared, type TruthReader } from "./reader";

const pair = z.tuple([z.number(), z.number()]);
const modelSchema = z.union([
  z.object({ kind: z.literal("groups"), groups: z.array(pair) }),
  z.looseObject({ kind: z.literal("ring") }),
]);
const survivalSchema = z.object({
  ...{ layout: z.string(), model: modelSchema, disks: z.number() },
  ...{ worst_case: z.number(), best_case: z.number() },
  by_failures: z
    .array(z.object({ k: z.number(), survived: z.number(), total: z.number(), fraction: z.number() }))
    .default([]),
});
const maybe = z.number().nullish();
const lossSchema = z.object({
  ...{ case: z.string(), n_per_group: z.number(), tolerates: z.number(), groups: z.number() },
  input: z.object({
    ...{ afr: z.number(), mttr_h: z.number(), repair: z.enum(["parallel", "serial"]) },
    ...{ ber: maybe, disk_bytes: maybe },
  }),
  ...{ mttf_h: maybe, u_rebuild: maybe, mttdl_group_h: maybe, mttdl_system_h: maybe },
  ...{ mttdl_naive_no_ure_h: maybe, p_loss_5y: maybe },
});

/** As the file promises: a relative error below 1e-9. */
const digits = (value: number | null | undefined): string | null => value?.toPrecision(9) ?? null;

function* survived(one: z.infer<typeof survivalSchema>): Generator<Compared> {
  const { layout, model, disks, by_failures, worst_case, best_case } = one;
  const found = survival(model.kind === "ring" ? { kind: "ring", members: disks } : model);
  yield {
    what: `${layout}, worst and best`,
    measured: [worst_case, best_case],
    derrick: [found.worst, found.best],
  };
  for (const { k, survived: ways, total, fraction } of by_failures) {
    const row = found.rows[k];
    yield {
      what: `${layout}, ${k} failed`,
      measured: [ways, total, digits(fraction)],
      derrick: row && [Number(row.survived), Number(row.total), digits(row.fraction)],
    };
  }
}

function* lost(c: z.infer<typeof lossSchema>): Generator<Compared> {
  const model: Reliability = {
    ...{ members: c.n_per_group, tolerates: c.tolerates, groups: c.groups, afr: c.input.afr },
    ...{ repairHours: c.input.mttr_h, repair: c.input.repair, bitErrors: c.input.ber ?? null },
    driveBytes: c.input.disk_bytes ?? 0,
  };
  yield* measuredOnes(c.case, [
    ["mean hours of a drive", digits(c.mttf_h), digits(meanHours(model.afr))],
    ["a rebuild that cannot read", digits(c.u_rebuild), digits(unreadable(model))],
    ["hours to loss of a group", digits(c.mttdl_group_h), digits(hoursToLoss(model))],
    ["hours to loss", digits(c.mttdl_system_h), digits(hoursToLoss(model) / model.groups)],
    ["hours by the usual estimate", digits(c.mttdl_naive_no_ure_h), digits(naiveHours(model))],
    ["loss within five years", digits(c.p_loss_5y), digits(lossWithin(model, 5))],
  ]);
}

export const raidReader: TruthReader = {
  name: "survival and loss",
  reads: (path) => /^raid.*\.json$/.test(basename(path)),
  *compare(path): Generator<Compared> {
    const { survivability, reliability } = listsOf(path);
    yield* eachCase(survivability, "survival", survivalSchema, survived);
    yield* eachCase(reliability, "loss", lossSchema, lost);
  },
};
