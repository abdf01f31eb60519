// How long the core takes: all checks and steps of a build, merges and importers.
import { questionSchema, searchLayouts } from "@/core/storage/bench";
import { meanHours, Trials } from "@/core/storage/reliability";
import {
  contents,
  device,
  entry,
  loader,
  onPartition,
  port,
  uefi,
  volume,
} from "../tests/support/boot-machines";
import { aBuild, shippedProfile } from "../tests/support/builds";
import { bundleOf, capture, captures } from "../tests/support/formats";
import { answerFileOf, readAnswers, textOf } from "@/core/answers";
import { layouts, trapOf } from "@/core/identity";
import { bootPicture, resolveBoot } from "@/core/boot";
import { evaluateSheet } from "@/core/sheet";
import { emptyMachine, mergeReadings, readTexts } from "@/core/machine";

function time(name: string, aim: string, work: () => void): void {
  for (let i = 0; i < 20; i += 1) work();
  const runs = Array.from({ length: 100 }, () => {
    const start = performance.now();
    work();
    return performance.now() - start;
  }).sort((a, b) => a - b);
  const at = (share: number) => `${(runs[Math.floor(runs.length * share)] ?? 0).toFixed(2)} ms`;
  console.log(
    `${name.padEnd(62)} median ${at(0.5).padStart(10)}   p95 ${at(0.95).padStart(10)}   target ${aim}`,
  );
}

const neighbours = Array.from({ length: 10 }, (_, i) => ({
  name: `host-${i}`,
  addresses: [`10.61.20.${i}`],
}));
const context = aBuild({ neighbours });
const answered = aBuild({ profile: shippedProfile("lowland-server-7") });
time("all answer files of one build", "20 ms", () => void answerFileOf(answered));
time("answer files of 500 builds", "5 s", () => {
  for (let i = 0; i < 500; i += 1) answerFileOf(answered);
});
const boards = [...layouts().values()];
time("a password of 20 characters against every layout", "5 ms", () => {
  for (const reads of boards) trapOf("Zinc-lamp.42/Oak+9_x", { sends: boards[0]!, reads });
});
const kept = answerFileOf(answered);
const keptText = kept.kind === "file" ? textOf(kept.file) : "";
time("reading an answer file", "5 ms", () => void readAnswers(keptText));

time("all checks and steps of a build after an edit", "16 ms", () => void evaluateSheet(context));
time("boot sequence of a build in its four scenarios", "5 ms", () => void bootPicture(context));

/** 11 drives and a port, and 20 entries of which the last one that is tried starts. */
const OS = "\\EFI\\os\\a.efi";
const bootMachine = uefi({
  devices: [
    ...Array.from({ length: 11 }, (_, n) =>
      device(`d${n}`, n, { contents: contents([volume(n, n === 10 ? [loader(OS)] : [])]) }),
    ),
    port("N", { kind: "nobody" }),
  ],
  entries: [
    ...Array.from({ length: 18 }, (_, n) => entry(`00${10 + n}`, onPartition(n % 10))),
    entry("0030", "MAC(02610a000014,1)/IPv4(0.0.0.0)"),
    entry("0031", onPartition(10)),
  ],
  order: [...Array.from({ length: 18 }, (_, n) => `00${10 + n}`), "0030", "0031"],
});
if (resolveBoot(bootMachine).end.kind !== "system") throw new Error("the machine of the bench does not boot");
time(
  "100 resolutions of a start, 12 devices and 20 entries",
  "100 boot sequences, 12 devices and 20 entries",
  () => {
    for (let i = 0; i < 100; i += 1) resolveBoot(bootMachine);
  },
);
const texts = captures("server-uefi-2socket");

/** A bundle of 60 drives and 12 ports, made by repeating what real tools printed with other serials and names. */
function wideBundle(): string {
  const folder = "server-uefi-2socket";
  const lsblk = JSON.parse(capture(folder, "lsblk.json")) as {
    blockdevices: { name: string; serial: string | null }[];
  };
  const smart = JSON.parse(capture(folder, "smartctl-sdg.json")) as object;
  const links = JSON.parse(capture(folder, "ip-link-d.json")) as { ifname: string; address: string }[];
  const disk = lsblk.blockdevices.find((d) => d.serial === "SAMPLESAS0001");
  const port = links.find((l) => l.ifname === "eno1");
  const drives = Array.from({ length: 60 }, (_, i) => ({
    ...disk,
    name: `sd${i}`,
    serial: `WIDE${i}`,
    wwn: `0x5000c5000001${1000 + i}`,
  }));
  const sections: Record<string, string> = {
    lsblk: JSON.stringify({ blockdevices: drives }),
    "ip-link": JSON.stringify(
      Array.from({ length: 12 }, (_, i) => ({
        ...port,
        ifname: `eno${i}`,
        address: `02:00:00:00:01:${(16 + i).toString(16)}`,
        altnames: [],
      })),
    ),
    lscpu: capture(folder, "lscpu.json"),
    dmidecode: capture(folder, "dmidecode.txt"),
    lspci: capture(folder, "lspci-vmmnnk.txt"),
  };
  const bundle = bundleOf("wide", sections);
  const health = drives
    .map((d) =>
      bundleOf("x", {
        smartctl: JSON.stringify({
          ...smart,
          device: { name: `/dev/${d.name}`, protocol: "SCSI" },
          serial_number: d.serial,
          wwn: undefined,
        }),
      }),
    )
    .map((b) => b.slice(b.indexOf("begin"), b.indexOf("done")));
  return bundle.replace(/done\n$/, `${health.join("")}done\n`);
}
const wide = [{ name: "wide.txt", text: wideBundle() }];
const facts = mergeReadings(emptyMachine(), readTexts(wide).readings, "2026-11-24T08:00:00Z").document.facts;
if (facts.drives.length !== 60 || facts.ports.length !== 12 || facts.drives.some((d) => d.health === null))
  throw new Error(
    `the wide bundle was read as ${facts.drives.length} drives and ${facts.ports.length} ports`,
  );
time(
  `import and merge a bundle of 60 drives and 12 ports (${Math.round(wide[0]!.text.length / 1000)} kB)`,
  "50 ms",
  () => void mergeReadings(emptyMachine(), readTexts(wide).readings, "2026-11-24T08:00:00Z"),
);
time(
  `import and merge ${texts.length} outputs of a two-socket server`,
  "50 ms",
  () => void mergeReadings(emptyMachine(), readTexts(texts).readings, "2026-11-24T08:00:00Z"),
);

const sixty = questionSchema.parse({ drives: "60x18T", survive: 0 });
time("all layouts of 60 drives", "100 ms", () => void searchLayouts(sixty));

const drawn = {
  ...{
    model: { members: 5, tolerates: 1, groups: 1, afr: 0.02, repairHours: 48, repair: "parallel" as const },
  },
  ...{ years: 5, seed: 1, batch: 1, repairs: "spread" as const },
};
const model = { ...drawn.model, bitErrors: 1e-15, driveBytes: 18e12 };
time(
  "500,000 pool-years of a simulation, sampled",
  "500 ms",
  () => void new Trials({ ...drawn, model }).run(100_000),
);
// The plain loop beside it: every drive of every hour, for a hundredth of the years.
time("5,000 pool-years, hour by hour", "-", () => {
  const fails = 1 / meanHours(model.afr);
  let lost = 0;
  for (let pool = 0; pool < 1000; pool += 1)
    for (let hour = 0; hour < 5 * 8760; hour += 1) if (Math.random() < 5 * fails) lost += 1;
  return void lost;
});
