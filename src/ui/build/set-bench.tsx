import { useMemo, useState } from "react";
import { BENCH_SCHOOLS, searchOver, type BenchCandidate, type BenchQuestion } from "@/core/storage";
import { ParsedField, SelectField } from "../fields/fields";
import { numberField, wholeField } from "../fields/numbers";
import { Problems } from "../frame/problems";
import { CandidateTable } from "../storage-bench/candidate-table";
import { LossChart } from "../storage-bench/loss-chart";

interface Props {
  /** Bytes of the drives, in the order in which the places of a layout count them. */
  sizes: readonly number[];
  asked: Pick<BenchQuestion, "media" | "use" | "sector">;
  /** The name of the layout that the set has now. */
  layout: string;
  take: (layout: BenchCandidate["layout"]) => void;
}

const few = wholeField("0 to 8", (n) => n <= 8);
const terabytes = numberField(1e12, "a number of TB", (n) => n > 0 && n < 1e18);
const KEEPERS = ["any", ...BENCH_SCHOOLS] as const;

/** Every layout of the drives of one set; pressing one takes it. */
export default function SetBench({ sizes, asked, layout, take }: Props) {
  const [wish, setWish] = useState({
    ...{ survive: 1, spares: 0, least: null as number | null },
    school: "any" as BenchQuestion["school"],
  });
  const found = useMemo(
    () =>
      searchOver([...sizes], {
        ...{ ...asked, ...wish, drives: "", free: 0, full: 80, replace: 24, afr: null, coercion: "none" },
      }),
    [sizes, asked, wish],
  );
  const change = (next: Partial<typeof wish>): void => setWish({ ...wish, ...next });
  return (
    <div>
      <div className="my-2 grid gap-x-6 gap-y-2 sm:grid-cols-2 md:grid-cols-4">
        <ParsedField
          {...{
            path: "wish.survive",
            label: "Minimum fault tolerance (drives)",
            value: wish.survive as number | null,
          }}
          {...few}
          onChange={(survive) => change({ survive: survive ?? 0 })}
        />
        <ParsedField
          {...{ path: "wish.spares", label: "Hot spares", value: wish.spares as number | null }}
          {...few}
          onChange={(spares) => change({ spares: spares ?? 0 })}
        />
        <ParsedField
          {...{ path: "wish.least", label: "Minimum usable, TB", value: wish.least }}
          {...terabytes}
          onChange={(least) => change({ least })}
        />
        <SelectField
          {...{ path: "wish.school", label: "RAID implementation", value: wish.school }}
          options={KEEPERS.map((value) => ({ value, text: value === "any" ? "whoever" : value }))}
          onChange={(school) => change({ school })}
        />
      </div>
      {found.ok ? (
        <>
          <CandidateTable
            candidates={found.value.candidates}
            chosen={found.value.candidates.find((c) => c.name === layout)}
            choose={(name) => {
              const chosen = found.value.candidates.find((c) => c.name === name);
              if (chosen) take(chosen.layout);
            }}
          />
          <LossChart
            candidates={found.value.candidates.filter((c) => c.folded === null)}
            chosen={found.value.candidates.find((c) => c.name === layout) ?? null}
          />
        </>
      ) : (
        <Problems problems={found.problems} title="This layout is not possible with these drives" />
      )}
    </div>
  );
}
