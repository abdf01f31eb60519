import { readFileSync } from "node:fs";
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
import type { Compared, TruthReader } from "./reader";

const pair = z.tuple([z.number(), z.number()]);
const modelSchema = z.union([
  z.object({ kind: z.literal("groups"), groups: z.array(pair) }),
  z.looseObject({ kind: z.literal("ring") }),
]);
const fileSchema = z.object({
  survivability: z.array(
    z.object({
      ...{ layout: z.string(), model: modelSchema, disks: z.number() },
      ...{ worst_case: z.number(), best_case: z.number() },
      by_failures: z.array(
        z.object({ k: z.number(), survived: z.number(), total: z.number(), fraction: z.number() }),
      ),
    }),
  ),
  reliability: z.array(
    z.object({
      ...{ case: z.string(), n_per_group: z.number(), tolerates: z.number(), groups: z.number() },
      input: z.object({
        ...{ afr: z.number(), mttr_h: z.number(), repair: z.enum(["parallel", "serial"]) },
        ...{ ber: z.number().nullable(), disk_bytes: z.number().nullable() },
      }),
      ...{ mttf_h: z.number(), u_rebuild: z.number(), mttdl_group_h: z.number(), mttdl_system_h: z.number() },
      ...{ mttdl_naive_no_ure_h: z.number(), p_loss_5y: z.number() },
      monte_carlo: z.object({ ci95: pair }).optional(),
    }),
  ),
});

/** As the file promises: a relative error below 1e-9. */
const digits = (value: number): string => value.toPrecision(9);

export const raidReader: TruthReader = {
  name: "survival and loss",
  reads: (path) => /^raid.*\.json$/.test(basename(path)),
  *compare(path): Generator<Compared> {
    const file = fileSchema.parse(JSON.parse(readFileSync(path, "utf8")));
    for (const { layout, model, disks, by_failures, worst_case, best_case } of file.survivability) {
      const found = survival(model.kind === "ring" ? { kind: "ring", members: disks } : model);
      yield {
        what: `${layout}, worst and best`,
        measured: [worst_case, best_case],
        derrick: [found.worst, found.best],
      };
      for (const { k, survived, total, fraction } of by_failures) {
        const row = found.rows[k];
        yield {
          what: `${layout}, ${k} failed`,
          measured: [survived, total, digits(fraction)],
          derrick: row && [Number(row.survived), Number(row.total), digits(row.fraction)],
        };
      }
    }
    for (const c of file.reliability) {
      const model: Reliability = {
        ...{ members: c.n_per_group, tolerates: c.tolerates, groups: c.groups, afr: c.input.afr },
        ...{ repairHours: c.input.mttr_h, repair: c.input.repair, bitErrors: c.input.ber },
        driveBytes: c.input.disk_bytes ?? 0,
      };
      const pairs: [string, number, number][] = [
        ["mean hours of a drive", c.mttf_h, meanHours(model.afr)],
        ["a rebuild that cannot read", c.u_rebuild, unreadable(model)],
        ["hours to loss of a group", c.mttdl_group_h, hoursToLoss(model)],
        ["hours to loss", c.mttdl_system_h, hoursToLoss(model) / model.groups],
        ["hours by the usual estimate", c.mttdl_naive_no_ure_h, naiveHours(model)],
        ["loss within five years", c.p_loss_5y, lossWithin(model, 5)],
      ];
      for (const [what, measured, derrick] of pairs)
        yield { what: `${c.case}, ${what}`, measured: digits(measured), derrick: digits(derrick) };
    }
  },
};
