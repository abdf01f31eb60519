import { existsSync, readFileSync } from "node:fs";
import { basename, dirname, join } from "node:path";
import { z } from "zod";
import { layoutSchema, pressWords, readAs, typeOn, waysToType, type Layout } from "@/core/identity";
import { eachCase, listsOf, type Compared, type TruthReader } from "./reader";

const tablesSchema = z.object({ layouts: z.record(z.string(), layoutSchema) });
const caseSchema = z.object({
  physical: z.string(),
  assumed: z.string(),
  meant: z.string(),
  presses: z.array(z.string()).nullish(),
  stored: z.string().nullish(),
  same: z.boolean().nullish(),
  alt_shortcut_presses: z.number().nullish(),
  keys_without_symbol: z.number().nullish(),
  dead_key_left_pending: z.boolean().nullish(),
  untypable_on_physical: z.string().nullish(),
  characters_with_more_than_one_way_to_type: z
    .array(z.object({ char: z.string(), ways_on_physical: z.array(z.string()) }))
    .nullish(),
});
type Case = z.infer<typeof caseSchema>;

const PUBLIC = "tests/fixtures/keyboard";

/** The layouts that stand beside a file of cases, and the public ones. */
function layoutsBeside(path: string): Record<string, Layout> {
  const files = [PUBLIC, dirname(path)].map((folder) => join(folder, "keyboard-tables.json"));
  return Object.assign(
    {},
    ...files
      .filter((file) => existsSync(file))
      .map((file) => tablesSchema.parse(JSON.parse(readFileSync(file, "utf8"))).layouts),
  ) as Record<string, Layout>;
}

/** What Derrick says of one case, under the names of the file. */
function judged({ meant }: Case, physical: Layout, assumed: Layout): Record<string, unknown> {
  const typed = typeOn(physical, meant);
  if (!typed.ok)
    return {
      untypable_on_physical: typed.problems[0]!.message.replace("this keyboard cannot type ", ""),
    };
  const stored = readAs(assumed, typed.value);
  return {
    presses: typed.value.map(pressWords),
    stored: stored.text,
    same: stored.text === meant,
    alt_shortcut_presses: stored.altPresses,
    keys_without_symbol: stored.withoutSymbol,
    dead_key_left_pending: stored.deadPending,
    characters_with_more_than_one_way_to_type: [...new Set(meant)]
      .map((char) => ({ char, ways_on_physical: waysToType(physical, char).map(pressWords) }))
      .filter(({ ways_on_physical: ways }) => ways.length > 1),
  };
}

function* compareCase(measured: Case, layouts: Record<string, Layout>): Generator<Compared> {
  const what = `${JSON.stringify(measured.meant)} on ${measured.physical}, read as ${measured.assumed}`;
  const [physical, assumed] = [layouts[measured.physical], layouts[measured.assumed]];
  if (!physical || !assumed) return yield { what: `${what}: both layouts`, measured: true, derrick: false };
  const derrick = judged(measured, physical, assumed);
  for (const [field, value] of Object.entries(measured))
    if (value != null && !["physical", "assumed", "meant"].includes(field))
      yield { what: `${what}: ${field}`, measured: value, derrick: derrick[field] };
}

export const keyboardReader: TruthReader = {
  name: "passwords typed on one layout and read as another",
  reads: (path) => /^keyboard-passwords.*\.json$/.test(basename(path)),
  *compare(path) {
    const layouts = layoutsBeside(path);
    yield* eachCase(listsOf(path).cases, "passwords", caseSchema, (one) => compareCase(one, layouts));
  },
};
