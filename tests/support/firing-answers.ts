import { shippedProfile, type BuildChanges } from "./builds";

const given = (parameters: object[], more: object = {}): BuildChanges => ({
  sheet: { "answers.parameters": parameters, ...more },
});
const first = (...firstStart: string[]): BuildChanges => ({
  sheet: { "answers.firstStart": firstStart, "image.way": "network" },
  site: { networkBoot: "on" },
});
const lowland = shippedProfile("lowland-server-7");

/** Cases of the rules about commands, and about the values that they name. */
export const ANSWERS_FIRING: [code: string, severity: string, says: RegExp, changes: BuildChanges][] = [
  ["answers.parameter", "stop", /sheet or machine/, first("enrol {parameter.key}")],
  [
    "answers.parameter",
    "stop",
    /remove them/,
    given([{ name: "key", value: "1" }], { "answers.finish": ["enrol '{parameter.key}'"] }),
  ],
  [
    "answers.parameter",
    "stop",
    /"key" is a secret/,
    {
      ...given([{ name: "key", value: "", isSecret: true }], { "image.way": "network" }),
      profile: { ...lowland, netboot: { ...lowland.netboot!, words: ["k={parameter.key}"] } },
    },
  ],
  [
    "answers.secret-open",
    "stop",
    /and its value is stored in clear text \(sheet\)/,
    {
      ...given([{ name: "key", value: "typed", isSecret: false }]),
      site: { parameters: [{ name: "key", value: "", isSecret: true }] },
    },
  ],
  [
    "answers.first-start",
    "stop",
    /but only network installations from Derrick run them/,
    { sheet: { "answers.firstStart": ["true"], "image.way": "stick" } },
  ],
  ["answers.fixed-wait", "caution", /waits for a fixed time: "sleep 60; enrol"/, first("sleep 60; enrol")],
  [
    "answers.left-behind",
    "note",
    /After the installation the error output of a command is discarded \("enrol \|\| true"\)/,
    first("enrol || true"),
  ],
  ["answers.left-behind", "caution", /a shell stays open/, first("cairn-service ssh enable")],
  ["answers.left-behind", "caution", /a shell stays open/, { sheet: { "answers.services": ["sshd"] } }],
];

/** What looks like one of them, and is none. */
export const ANSWERS_SILENT: [code: string, changes: BuildChanges][] = [
  ["answers.fixed-wait", first("until curl -fsS http://a.example/; do sleep 5; done")],
  ["answers.fixed-wait", first("echo 'no-sleep 60'")],
  ["answers.left-behind", first("enrol 2> /var/log/enrol.log")],
  [
    "answers.left-behind",
    { profile: { management: { ...lowland.management } }, sheet: { "answers.services": ["sshd"] } },
  ],
  [
    "answers.left-behind",
    {
      sheet: {
        "answers.services": ["sshd"],
        "network.services": [{ name: "SSH", port: 22, until: "2026-12-31" }],
      },
    },
  ],
];
