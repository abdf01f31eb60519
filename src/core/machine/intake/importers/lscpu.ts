import { z } from "zod";
import { ok, type Result } from "../../../result";
import { cleanText, parseShaped, type Importer, type Reading } from "./importer";

const fieldSchema = z.object({
  field: z.string(),
  data: z.string().nullish(),
  get children() {
    return z.array(fieldSchema).optional();
  },
});
type Field = z.infer<typeof fieldSchema>;

const flat = (fields: Field[]): Field[] => fields.flatMap((f) => [f, ...flat(f.children ?? [])]);

/** The flags, as the kernel spells them, that each level of the x86-64 psABI adds to the one before. */
const LEVELS: readonly (readonly [level: string, flags: string])[] = [
  ["x86-64-v1", "cmov cx8 fpu fxsr mmx syscall sse sse2"],
  ["x86-64-v2", "cx16 lahf_lm popcnt sse4_1 sse4_2 ssse3"],
  ["x86-64-v3", "avx avx2 bmi1 bmi2 f16c fma abm movbe xsave"],
  ["x86-64-v4", "avx512f avx512bw avx512cd avx512dq avx512vl"],
];

function levelOf(flags: readonly string[]): string | null {
  const missing = LEVELS.findIndex(([, needs]) => !needs.split(" ").every((f) => flags.includes(f)));
  return missing === 0 ? null : (LEVELS.at(missing < 0 ? -1 : missing - 1)?.[0] ?? null);
}

/** `lscpu -J`: sockets, cores, threads, architecture, and whether the processor can virtualise. */
export const lscpu: Importer = {
  tool: "lscpu",
  command: "lscpu -J",
  recognises: (text) => /^\s*\{\s*"lscpu"\s*:/.test(text),
  parse(text): Result<Reading> {
    const parsed = parseShaped(text, z.object({ lscpu: z.array(fieldSchema) }), "lscpu");
    if (!parsed.ok) return parsed;
    const values = new Map(flat(parsed.value.lscpu).map((f) => [f.field.replace(/:$/, ""), f.data ?? ""]));
    const count = (name: string): number | null => {
      const number = Number.parseInt(values.get(name) ?? "", 10);
      return Number.isFinite(number) ? number : null;
    };
    const sockets = count("Socket(s)");
    const perSocket = count("Core(s) per socket");
    const flags = (values.get("Flags") ?? "").split(/\s+/);
    const processors = {
      model: cleanText(values.get("Model name")),
      maker: cleanText(values.get("Vendor ID")),
      level: levelOf(flags),
      maxMegahertz: Number.parseFloat(values.get("CPU max MHz") ?? "") || null,
      architecture: cleanText(values.get("Architecture")),
      sockets,
      cores: sockets !== null && perSocket !== null ? sockets * perSocket : null,
      threads: count("CPU(s)"),
      // vmx and svm are the two processor flags that mean hardware virtualisation.
      virtualisation: values.has("Flags") ? flags.includes("vmx") || flags.includes("svm") : null,
    };
    return ok({
      facts: { processors },
      understood: `${processors.sockets ?? "?"} sockets, ${processors.cores ?? "?"} cores, ${processors.architecture ?? "architecture not reported"}`,
      ignored: ["caches, frequencies and vulnerability lines"],
    });
  },
};
