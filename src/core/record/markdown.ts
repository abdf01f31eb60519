import { formatDateTime, formatDuration } from "../units";
import type { BuildRecord } from "./record";

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

/** The record as Markdown (CommonMark with tables); the same record gives the same bytes. */
export function renderRecordMarkdown(record: BuildRecord): string {
  const when = (iso: string | null): string => (iso ? formatDateTime(iso, record.timeZone) : "–");
  const took = (seconds: number | null): string => (seconds === null ? "–" : formatDuration(seconds));
  const { reach, times, acceptance } = record;
  const lines = [
    `# ${cell(record.subject || record.sheet)}`,
    "",
    `Sheet ${cell(record.sheet)} revision ${cell(record.revision)}, ${cell(record.site)}. State: ${record.state}${record.handedTo ? ` to ${cell(record.handedTo)}` : ""}.`,
    ...section(
      "How to reach it",
      table(
        ["what", "value"],
        [
          ["Machine", `${record.machine.name}: ${record.machine.summary}`],
          ["Host name", reach.hostName],
          ["Address", reach.address],
          ["Management", reach.management],
          ["Accounts", reach.accounts.join("; ")],
          ["Passwords are kept", reach.secretsKept],
          ...(record.defects.length > 0 ? [["Known defects", record.defects.join("; ")]] : []),
        ],
      ),
    ),
    ...section(
      "What was installed",
      table(
        ["what", "value"],
        [
          ["Image", record.image.name],
          ["OS profile", record.image.profile],
          ["Checksum", record.image.checksum],
          [
            record.drives.layout === "single drive"
              ? "System drive"
              : `System drives, ${record.drives.layout}`,
            record.drives.target,
          ],
          ["Left alone", record.drives.leftAlone.join("; ")],
          ...(record.drives.free.length > 0 ? [["Free", record.drives.free.join("; ")]] : []),
        ],
      ),
    ),
    ...section(
      "Default log-ins",
      record.defaultLogIns.map((l) => `- ${cell(l.name)}, which opens ${cell(l.opens)}: ${cell(l.how)}`),
    ),
    ...section(
      "Saved before",
      record.saved.map((s) => `- ${cell(s.what)}: ${cell(s.where)} (${cell(s.by)}, ${when(s.at)})`),
    ),
    ...section(
      "As planned and as found",
      acceptance
        ? [
            `Read ${when(acceptance.at)} from ${cell(acceptance.from)}.`,
            "",
            ...table(
              ["zone", "what", "planned", "found", "verdict", "decided"],
              acceptance.lines.map((l) => [
                l.zone,
                l.what,
                l.planned,
                l.found,
                l.verdict,
                l.settled
                  ? `${l.settled.how === "seen" ? "seen by eye" : l.settled.how}: ${l.settled.words} (${l.settled.by}, ${when(l.settled.at)})`
                  : "",
              ]),
            ),
          ]
        : ["Not read back yet."],
    ),
    ...section(
      "Deviations",
      record.deviations.map((d) => `- ${when(d.at)} ${cell(d.step)}: ${cell(d.seen)} – ${cell(d.decision)}`),
    ),
    ...section(
      "Waivers",
      record.waivers.map(
        (w) =>
          `- ${cell(w.label)} ${cell(w.finding)} Reason: ${cell(w.reason)} (${cell(w.by)}, ${when(w.at)})`,
      ),
    ),
    ...section(
      "Findings that stood open",
      record.openFindings.map((f) => `- ${cell(f.label)} ${cell(f.severity)}: ${cell(f.finding)}`),
    ),
    ...section("Times", [
      `Started ${when(times.startedAt)}, ended ${when(times.endedAt)}; taken ${took(times.takenSeconds)}, likely was ${took(times.likelySeconds)}.`,
      "",
      ...table(
        ["step", "state", "likely", "taken"],
        times.steps.map((s) => [s.title, s.state, took(s.likelySeconds), took(s.takenSeconds)]),
      ),
    ]),
    ...section(
      "Dates",
      record.dates.map((d) => `- ${cell(d.date)}: ${cell(d.what)}`),
    ),
    ...section(
      "Clock",
      record.clock.map(
        (c) =>
          `- Before ${when(c.at)} the server's clock went back ${took(c.seconds)}: times around it are not sure.`,
      ),
    ),
    ...section(
      "Log",
      record.log.map(
        (l) =>
          `- ${when(l.at)} ${cell(l.by)}: ${cell(l.text)}${l.arrived ? ` (kept in the browser, arrived ${when(l.arrived)})` : ""}`,
      ),
    ),
    ...section("Notes", record.notes ? [cell(record.notes)] : []),
  ];
  return `${lines.join("\n")}\n`;
}
