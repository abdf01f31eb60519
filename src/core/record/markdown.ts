import { term } from "../text";
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
    `Build sheet ${cell(record.sheet)} revision ${cell(record.revision)}, ${cell(record.site)}. State: ${record.state}${record.handedTo ? ` to ${cell(record.handedTo)}` : ""}.`,
    ...section(
      "Access",
      table(
        ["what", "value"],
        [
          ["Machine", `${record.machine.name}: ${record.machine.summary}`],
          ["Host name", reach.hostName],
          ["Address", reach.address],
          ["Management", reach.management],
          ["Accounts", reach.accounts.join("; ")],
          ["Credential location", reach.secretsKept],
          ...(record.defects.length > 0 ? [["Known defects", record.defects.join("; ")]] : []),
        ],
      ),
    ),
    ...section(
      "Installation",
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
          ["Protected", record.drives.leftAlone.join("; ")],
          ...(record.drives.free.length > 0 ? [["Free", record.drives.free.join("; ")]] : []),
        ],
      ),
    ),
    ...section(
      "Default logins",
      record.defaultLogIns.map((l) => `- ${cell(l.name)}, account ${cell(l.opens)}: ${cell(l.how)}`),
    ),
    ...section(
      "Saved before the installation",
      record.saved.map((s) => `- ${cell(s.what)}: ${cell(s.where)} (${cell(s.by)}, ${when(s.at)})`),
    ),
    ...section(
      "Planned and found",
      acceptance
        ? [
            `Imported ${when(acceptance.at)} from ${cell(acceptance.from)}.`,
            "",
            ...table(
              ["zone", "what", "planned", "found", "verdict", "decided"],
              acceptance.lines.map((l) => [
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
      "Open findings",
      record.openFindings.map((f) => `- ${cell(f.label)} ${cell(term(f.severity))}: ${cell(f.finding)}`),
    ),
    ...section("Times", [
      `Started ${when(times.startedAt)}, ended ${when(times.endedAt)}; duration ${took(times.takenSeconds)}, expected ${took(times.likelySeconds)}.`,
      "",
      ...table(
        ["step", "state", "expected", "taken"],
        times.steps.map((s) => [s.title, term(s.state), took(s.likelySeconds), took(s.takenSeconds)]),
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
          `- Before ${when(c.at)} the server's clock was set back ${took(c.seconds)}: times around it are uncertain.`,
      ),
    ),
    ...section(
      "Log",
      record.log.map(
        (l) =>
          `- ${when(l.at)} ${cell(l.by)}: ${cell(l.text)}${l.arrived ? ` (kept in the browser, received ${when(l.arrived)})` : ""}`,
      ),
    ),
    ...section("Notes", record.notes ? [cell(record.notes)] : []),
  ];
  return `${lines.join("\n")}\n`;
}
