// Writes demo/marrowby-water.json: the demo data, made by the same core that the application uses, so that every
// finding, step and log entry in it is what the application would say. Run with `npm run demo:write`.
import { writeFileSync } from "node:fs";
import { diffSheets, emptySheet, type Sheet } from "@/core/sheet";
import { exportSchema, type Export } from "@/core/record";
import { images } from "./images";
import { ARKLE, at, DAY, NOW, PELL } from "./parts";
import { notesOfDemo, readingsOfDemo, registerOfDemo } from "./register";
import { planB, planBk1, planHv1, profiles, runB, runBk1, runHv1, signedHv1, times, transfers } from "./runs";
import { bk1, hv2, st1, thoA, thoB, tm1 } from "./sheets";
import { machines, sites } from "./sites";

type BuildOut = Export["builds"][number];
const build = (
  id: string,
  number: string,
  sheet: Sheet,
  by: string,
  daysAgo: number,
  letters: string[],
): BuildOut => {
  const start = emptySheet();
  const edits = diffSheets(start, sheet);
  const half = Math.ceil(edits.length / 2);
  const rows: BuildOut["history"] = [
    { version: 2, at: at(daysAgo * DAY + 200), by, letter: null, edits: edits.slice(0, half) },
    { version: 3, at: at(daysAgo * DAY + 120), by, letter: null, edits: edits.slice(half) },
  ];
  letters.forEach((letter, i) =>
    rows.push({ version: 4 + i, at: at(daysAgo * DAY + 60 - i * 20), by, letter, edits: [] }),
  );
  return { id, number, sheet, revision: letters.at(-1) ?? null, history: rows.reverse() };
};

const file: Export = exportSchema.parse({
  format: "derrick-export",
  version: 1,
  exportedAt: NOW,
  sites,
  machines,
  profiles: profiles.map((p) => ({
    key: p.profile.profile,
    version: p.profile.version,
    at: at(40 * DAY),
    yaml: p.yaml,
  })),
  images,
  builds: [
    build("b-wrk-hv1", "B-0041", signedHv1, ARKLE, 3, ["A", "B"]),
    build("b-wrk-hv2", "B-0042", hv2, ARKLE, 1, []),
    build("b-tho-a", "B-0043", thoA, PELL, 2, []),
    build("b-tho-b", "B-0038", thoB, PELL, 23, ["A"]),
    build("b-wrk-st1", "B-0044", st1, ARKLE, 1, []),
    build("b-wrk-tm1", "B-0045", tm1, PELL, 1, ["A"]),
    build("b-cl-bk1", "B-0031", bk1, PELL, 32, ["A"]),
  ],
  runs: [
    { id: "r-wrk-hv1", buildId: "b-wrk-hv1", plan: planHv1, log: runHv1.log },
    { id: "r-tho-b", buildId: "b-tho-b", plan: planB, log: runB.log },
    { id: "r-cl-bk1", buildId: "b-cl-bk1", plan: planBk1, log: runBk1.log },
  ],
  transfers,
  times,
  drives: registerOfDemo(machines),
  readings: readingsOfDemo,
  compatNotes: notesOfDemo,
});
const path = process.argv[2] ?? "demo/marrowby-water.json";
writeFileSync(path, `${JSON.stringify(file, null, 1)}\n`);
console.log(
  `${path}: ${file.machines.length} machines, ${file.builds.length} builds, ${file.runs.length} runs`,
);
