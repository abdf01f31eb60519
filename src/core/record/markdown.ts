import { term } from "../text";
import { formatDateTime, formatDuration } from "../units";
import type { RunRecord } from "./record";

/**
 * A foreign word as plain text: kept on its line and inside its table cell, with every sign escaped that would make it a
 * heading, a link, a picture, an entity or markup.
 */
const cell = (text: string): string =>
  text
    .replace(/\s+/g, " ")
    .replace(/([\\|`*_<>[\]#!&~])/g, "\\$1")
    .replaceAll("://", ":\\//")
    .trim() || "–";

const table = (head: string[], rows: string[][]): string[] => [
  `| ${head.join(" | ")} |`,
  `|${head.map(() => " --- ").join("|")}|`,
  ...rows.map((r) => `| ${r.map(cell).join(" | ")} |`),
];

const section = (title: string, lines: string[]): string[] =>
  lines.length === 0 ? [] : ["", `## ${title}`, "", ...lines];

/** How moments and times are written in one record. */
interface Words {
  when: (iso: string | null) => string;
  took: (seconds: number | null) => string;
}

type Part = (record: RunRecord, words: Words) => string[];

function head({
  subject,
  sheet,
  revision,
  number,
  kind,
  question,
  site,
  state,
  handedTo,
}: RunRecord): string[] {
  const called = sheet === undefined ? "" : `Build sheet ${cell(sheet)} revision ${cell(revision ?? "")}`;
  const what = kind === undefined ? called : `${term(kind)} ${cell(number ?? "")}`;
  return [
    `# ${cell(subject || (sheet ?? number ?? ""))}`,
    "",
    `${what}, ${cell(site)}. State: ${state}${handedTo ? ` to ${cell(handedTo)}` : ""}.`,
    ...(question ? ["", cell(question)] : []),
  ];
}

const access: Part = ({ machine, reach, defects }) =>
  section(
    "Access",
    table(
      ["what", "value"],
      [
        ["Machine", `${machine.name}: ${machine.summary}`],
        ...(reach
          ? [
              ["Host name", reach.hostName],
              ["Address", reach.address],
              ["Management", reach.management],
              ["Accounts", reach.accounts.join("; ")],
              ["Credential location", reach.secretsKept],
            ]
          : []),
        ...(defects.length > 0 ? [["Known defects", defects.join("; ")]] : []),
      ],
    ),
  );

const installation: Part = ({ image, drives }) =>
  image && drives
    ? section(
        "Installation",
        table(
          ["what", "value"],
          [
            ["Image", image.name],
            ["OS profile", image.profile],
            ["Checksum", image.checksum],
            [
              drives.layout === "single drive" ? "System drive" : `System drives, ${drives.layout}`,
              drives.target,
            ],
            ["Protected", drives.leftAlone.join("; ")],
            ...(drives.free.length > 0 ? [["Free", drives.free.join("; ")]] : []),
          ],
        ),
      )
    : [];

const logIns: Part = ({ defaultLogIns }) =>
  section(
    "Default logins",
    defaultLogIns.map((l) => `- ${cell(l.name)}, account ${cell(l.opens)}: ${cell(l.how)}`),
  );

const saved: Part = ({ saved: items, kind }, { when }) =>
  section(
    kind === undefined ? "Saved before the installation" : "Written down",
    items.map((s) => `- ${cell(s.what)}: ${cell(s.where)} (${cell(s.by)}, ${when(s.at)})`),
  );

const acceptance: Part = ({ acceptance: found }, { when }) =>
  section(
    "Planned and found",
    found
      ? [
          `Imported ${when(found.at)} from ${cell(found.from)}.`,
          "",
          ...table(
            ["zone", "what", "planned", "found", "verdict", "decided"],
            found.lines.map((l) => [
              l.zone,
              l.what,
              l.planned,
              l.found,
              term(l.verdict),
              l.settled
                ? `${term(l.settled.how)}: ${l.settled.words} (${l.settled.by}, ${when(l.settled.at)})`
                : "",
            ]),
          ),
        ]
      : ["Not verified yet."],
  );

const judged: Part = ({ deviations, waivers, openFindings }, { when }) => [
  ...section(
    "Deviations",
    deviations.map((d) => `- ${when(d.at)} ${cell(d.step)}: ${cell(d.seen)} – ${cell(d.decision)}`),
  ),
  ...section(
    "Waivers",
    waivers.map(
      (w) => `- ${cell(w.label)} ${cell(w.finding)} Reason: ${cell(w.reason)} (${cell(w.by)}, ${when(w.at)})`,
    ),
  ),
  ...section(
    "Open findings",
    openFindings.map((f) => `- ${cell(f.label)} ${cell(term(f.severity))}: ${cell(f.finding)}`),
  ),
];

const times: Part = ({ times: taken }, { when, took }) =>
  section("Times", [
    `Started ${when(taken.startedAt)}, ended ${when(taken.endedAt)}; duration ${took(taken.takenSeconds)}, expected ${took(taken.likelySeconds)}.`,
    "",
    ...table(
      ["step", "state", "expected", "taken"],
      taken.steps.map((s) => [s.title, term(s.state), took(s.likelySeconds), took(s.takenSeconds)]),
    ),
  ]);

const told: Part = ({ dates, clock, log, notes }, { when, took }) => [
  ...section(
    "Dates",
    dates.map((d) => `- ${cell(d.date)}: ${cell(d.what)}`),
  ),
  ...section(
    "Clock",
    clock.map(
      (c) =>
        `- Before ${when(c.at)} the server's clock was set back ${took(c.seconds)}: times around it are uncertain.`,
    ),
  ),
  ...section(
    "Log",
    log.map(
      (l) =>
        `- ${when(l.at)} ${cell(l.by)}: ${cell(l.text)}${l.arrived ? ` (kept in the browser, received ${when(l.arrived)})` : ""}`,
    ),
  ),
  ...section("Notes", notes ? [cell(notes)] : []),
];

/** In the order of reading: what to know at three in the morning first. */
const PARTS: readonly Part[] = [head, access, installation, logIns, saved, acceptance, judged, times, told];

/** The record as Markdown (CommonMark with tables); the same record gives the same bytes. */
export function renderRecordMarkdown(record: RunRecord): string {
  const words: Words = {
    when: (iso) => (iso ? formatDateTime(iso, record.timeZone) : "–"),
    took: (seconds) => (seconds === null ? "–" : formatDuration(seconds)),
  };
  return `${PARTS.flatMap((part) => part(record, words)).join("\n")}\n`;
}
