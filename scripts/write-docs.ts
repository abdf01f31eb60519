// npm run docs:write: docs/checks.md, docs/pool-ladder.md and the published schemas, from the code.
import { writeFileSync } from "node:fs";
import { profileJsonSchema } from "@/core/image";
import { recordJsonSchema } from "@/core/record";
import { renderLadder } from "./ladder-page";
import { SITE_MESSAGES } from "@/core/site";
import { ARM_GATE } from "@/core/netboot";
import { SHEET_CHECKS, SHEET_MESSAGES, STAGES } from "@/core/sheet";
import { RESTORE_GATE } from "@/core/record";
import { HAND_OVER_GATE } from "@/core/run";
import { ISSUE_GATE, START_GATE } from "@/core/stage";

const GATES = [ISSUE_GATE, START_GATE, ARM_GATE, HAND_OVER_GATE, RESTORE_GATE];

/** The page of all rules, by zone. */
export function renderChecks(): string {
  const zones = STAGES.flatMap(({ zone: letter, title }) => {
    const checks = SHEET_CHECKS.filter((c) => c.zone === letter);
    if (checks.length === 0) return [];
    const rows = checks.map((c) => {
      const m = SHEET_MESSAGES[c.code];
      return `| \`${c.code}\` | ${m?.title} | ${m?.why} | ${m?.remedy} |`;
    });
    return [
      `## ${letter} ${title}`,
      "",
      "| rule | finding | reason | remedy |",
      "| --- | --- | --- | --- |",
      ...rows,
      "",
    ];
  });
  return [
    "# Rules of a build sheet",
    "",
    `${SHEET_CHECKS.length} rules. Written by \`npm run docs:write\` from the registry; a test compares this page with it.`,
    "",
    ...zones,
    "## Gates",
    "",
    "These rules are looked at when something is to be done. What they find is not waived: the action waits until it is put right.",
    "",
    ...GATES.flatMap(({ title, checks, messages }) => [
      `### ${title}`,
      "",
      "| rule | finding | reason | remedy |",
      "| --- | --- | --- | --- |",
      ...checks.map(({ code }) => {
        const m = messages[code];
        return `| \`${code}\` | ${m?.title} | ${m?.why} | ${m?.remedy} |`;
      }),
      "",
    ]),
    "## A whole site",
    "",
    "These rules compare all machines, sheets and devices of a site. Their findings are on the pages of the site.",
    "",
    "| rule | finding | reason | remedy |",
    "| --- | --- | --- | --- |",
    ...Object.entries(SITE_MESSAGES).map(
      ([code, m]) => `| \`${code}\` | ${m.title} | ${m.why} | ${m.remedy} |`,
    ),
    "",
  ].join("\n");
}

if (process.argv[1]?.endsWith("write-docs.ts")) {
  const folder = process.argv[2] ?? "docs";
  writeFileSync(`${folder}/checks.md`, renderChecks());
  writeFileSync(`${folder}/pool-ladder.md`, renderLadder());
  writeFileSync(`${folder}/profile.schema.json`, `${JSON.stringify(profileJsonSchema(), null, 1)}\n`);
  writeFileSync(`${folder}/record.schema.json`, `${JSON.stringify(recordJsonSchema(), null, 1)}\n`);
  console.log(`${folder}: checks.md, pool-ladder.md, profile.schema.json and record.schema.json`);
}
