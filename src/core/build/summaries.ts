import { mediumWords, modeWords } from "../boot";
import type { Zone } from "../finding";
import { driveLook, machineLine, type Drive } from "../machine";
import { formatDuration } from "../units";
import { factsOf, portOf, segmentOf, stickOf, targetOf, targetsOf, type BuildContext } from "./context";
import { roadOf, startsFromMedia } from "./roads";
import type { Step } from "./step";
import { sumDurations } from "../estimate";

/** The target without its serial, which the sheet may be asking for. */
function targetWords(context: BuildContext, target: Drive): string {
  const { layout, partners } = context.sheet.storage;
  return partners.length === 0
    ? driveLook(target)
    : `${layout} of ${targetsOf(context)
        .map((t) => driveLook(t.drive) + (t.role === "spare" ? " (spare)" : ""))
        .join(" and ")}`;
}

interface Summary {
  summary: string;
  decided: boolean | "not here";
}

const said = (summary: string): Summary => ({ summary, decided: true });
const open = (summary: string): Summary => ({ summary, decided: false });

/** The decision of each stage in one line of plain words, and whether it has been made. */
export function zoneSummaries(context: BuildContext, steps: readonly Step[]): Record<Zone, Summary> {
  const { sheet, image, machine, profile } = context;
  const facts = factsOf(context);
  const target = targetOf(context);
  const port = portOf(context);
  const { network, answers, handOver } = sheet;
  const media =
    sheet.image.way === "stick"
      ? stickOf(context).name || "a stick (not named)"
      : mediumWords[sheet.image.way];
  const road = roadOf(context);
  const kept = sheet.storage.leaveAlone.length;
  const runTotals = sumDurations(
    steps.filter((s) => s.zone !== "I" && s.zone !== "K").map((s) => s.duration),
  );
  return {
    A:
      machine && facts
        ? said(`${machine.name}: ${machineLine(facts) || "no facts yet"}`)
        : open("Which machine?"),
    B: image
      ? said(
          [
            sheet.image.road === "fresh" ? image.name : `${sheet.image.road} to ${image.name}`,
            startsFromMedia(context) ? `by ${media}` : "in the running system",
            ...(road && road.legs.length > 1
              ? [`over ${road.legs[0]?.profile.name} ${road.legs[0]?.version}`]
              : []),
          ].join(", "),
        )
      : open("Which image, and how does it get there?"),
    C: !startsFromMedia(context)
      ? said("Nothing is started from media; the machine restarts as it does now")
      : said(
          `${modeWords(sheet.boot.mode)}, ${sheet.boot.start === "one-time boot" ? `${media} once, then the target` : "media first for good"}`,
        ),
    D: target
      ? said(
          `On ${targetWords(context, target)}${kept > 0 ? `; ${kept} ${kept === 1 ? "drive" : "drives"} left alone` : ""}`,
        )
      : open("Which drive, and which must not be touched?"),
    E:
      network.school === "dynamic" || network.address
        ? said(
            `${network.school} ${network.address}${segmentOf(context) ? ` on ${segmentOf(context)?.name}` : ""}${port ? ` by ${port.seenAs}` : ""}`,
          )
        : open("Which address, by which port?"),
    F: answers.hostName
      ? said(
          `${[answers.hostName, answers.domain].filter(Boolean).join(".")}, ${answers.accounts.map((a) => a.name).join(" and ") || "no account"}, ${answers.keyboard || "no keyboard"}`,
        )
      : open("Which name and accounts?"),
    G: { summary: "Rehearsal on a simulated machine is not built yet", decided: "not here" },
    H:
      steps.length > 0
        ? said(
            `${steps.length} steps, likely ${formatDuration(runTotals.likelySeconds)}, late ${formatDuration(runTotals.lateSeconds)}`,
          )
        : open("Steps follow from machine and image"),
    I: steps.some((s) => s.zone === "I")
      ? said(
          steps
            .filter((s) => s.zone === "I")
            .map((s) => s.title)
            .join("; "),
        )
      : { summary: "No first-boot work", decided: profile ? "not here" : false },
    J:
      steps.length > 0
        ? said("A bundle from the installed system is compared with this sheet")
        : open("Compared with the plan once it is built"),
    K: said(
      handOver.owner
        ? `To ${handOver.owner}${handOver.evaluationEnds ? `; evaluation ends ${handOver.evaluationEnds}` : ""}`
        : "The owner is not named yet",
    ),
  };
}
