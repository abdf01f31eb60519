import { BENCH_SCHOOLS, CLASS_NAMES, CLASSES, COERCIONS, PURPOSES, type BenchQuestion } from "@/core/storage";
import { ParsedField, SelectField, TextField } from "../fields/fields";
import { numberField, wholeField } from "../fields/numbers";

const CLASS_WORDS: Record<(typeof CLASS_NAMES)[number], string> = {
  spinning: "HDD",
  flash: "SSD, SATA or SAS",
  nvme: "SSD, NVMe",
};
const SCHOOL_WORDS = { any: "any", ZFS: "ZFS", md: "md", "RAID controller": "hardware RAID" };
const options = <T extends string>(all: readonly T[], words?: Record<T, string>) =>
  all.map((value) => ({ value, text: words?.[value] ?? value }));

const terabytes = numberField(1e12, "a number of TB", (n) => n > 0 && n < 1e18);
const percent = numberField(1, "1 to 100", (n) => n >= 1 && n <= 100);
const yearly = numberField(0.01, "a percentage, for example 2", (n) => n > 0 && n < 1);
const hours = numberField(1, "hours, 0 to 8760", (n) => n >= 0 && n <= 8760);
const few = (most: number) => wholeField(`0 to ${most}`, (n) => n >= 0 && n <= most);
const survive = few(6);
const spares = few(8);
const free = few(60);

/** A field of the form that may not be left empty: then what stood there stays. */
const filled =
  <K extends keyof BenchQuestion>(ask: (next: BenchQuestion) => void, question: BenchQuestion, key: K) =>
  (value: BenchQuestion[K] | null) =>
    value !== null && ask({ ...question, [key]: value });

/** What is asked of the bench. Figures of the class of drives are usual ones until somebody types better. */
export function BenchForm({
  question,
  ask,
}: {
  question: BenchQuestion;
  ask: (next: BenchQuestion) => void;
}) {
  const set = <K extends keyof BenchQuestion>(key: K) => filled(ask, question, key);
  const { afr } = CLASSES[question.media];
  return (
    <form
      className="grid gap-x-6 gap-y-3 sm:grid-cols-2 md:grid-cols-3 lg:grid-cols-7"
      aria-label="Requirements"
      onSubmit={(e) => e.preventDefault()}
    >
      <div className="sm:col-span-2">
        <TextField
          {...{ path: "drives", label: "Drives", value: question.drives, placeholder: "6x12T" }}
          onChange={set("drives")}
        />
      </div>
      <SelectField
        {...{
          path: "media",
          label: "Kind",
          value: question.media,
          options: options(CLASS_NAMES, CLASS_WORDS),
        }}
        onChange={set("media")}
      />
      <SelectField
        {...{ path: "use", label: "Purpose", value: question.use, options: options(PURPOSES) }}
        onChange={set("use")}
      />
      <ParsedField
        {...{ path: "survive", label: "Fault tolerance (drives)", value: question.survive, ...survive }}
        onChange={set("survive")}
      />
      <ParsedField
        {...{ path: "least", label: "Minimum usable, TB", value: question.least, ...terabytes }}
        onChange={(least) => ask({ ...question, least })}
      />
      <ParsedField
        {...{ path: "spares", label: "Hot spares", value: question.spares, ...spares }}
        onChange={set("spares")}
      />
      <ParsedField
        {...{ path: "free", label: "Unused drives", value: question.free, ...free }}
        onChange={set("free")}
      />
      <ParsedField
        {...{ path: "full", label: "Fill level, %", value: question.full, ...percent }}
        onChange={set("full")}
      />
      <ParsedField
        {...{ path: "replace", label: "Replacement time, h", value: question.replace, ...hours }}
        onChange={set("replace")}
      />
      <ParsedField
        {...{ path: "afr", label: "Annual failure rate (AFR), %", value: question.afr, ...yearly }}
        placeholder={`${afr * 100} (typical)`}
        onChange={(value) => ask({ ...question, afr: value })}
      />
      <SelectField
        {...{
          path: "school",
          label: "RAID implementation",
          value: question.school,
          options: options(["any", ...BENCH_SCHOOLS] as const, SCHOOL_WORDS),
        }}
        onChange={set("school")}
      />
      <SelectField
        {...{
          path: "coercion",
          label: "Capacity rounding of the controller",
          value: question.coercion,
          options: options(COERCIONS),
        }}
        onChange={set("coercion")}
      />
    </form>
  );
}
