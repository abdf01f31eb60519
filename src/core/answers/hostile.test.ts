import { expect, it } from "vitest";
import { aBuild, shippedProfile } from "../../../tests/support/builds";
import { A_HASH } from "../../../tests/support/keys";
import { seeded } from "../../../tests/support/random";
import { answerFileOf, imageSeedOf, lintKickstart, lintPreseed, textOf, type AnswerFileOfSheet } from ".";

// Fields of a sheet with values that a file of some format could take for more than a value.

type Plan = ReturnType<typeof aBuild>;
const SIGNS = [
  ...[
    '"',
    "'",
    "\\",
    "$",
    "`",
    "#",
    " ",
    "%end",
    "\n",
    "\r",
    "\t",
    ";",
    "$(id)",
    "--lock",
    "=",
    "]]>",
    "<",
    "&",
  ],
  ...[
    "é",
    "😀",
    "a",
    "Z",
    "0",
    "-",
    ".",
    ":",
    "- ",
    "\u2028",
    "\u0000",
    "END_OF_FILE",
    "{host.name}",
    "{{",
    "!!",
    "*",
  ],
];
const SOUND = ["gb", "host-9", "en_GB.UTF-8", "Europe/London", "10.61.10.7", "works.example"];
const PATHS = [
  ...["answers.hostName", "answers.domain", "answers.keyboard", "answers.locale", "answers.timeZone"],
  "answers.finish",
  ...["network.address", "network.gateway"],
];
const WRITERS: [profile: string, write: (plan: Plan) => AnswerFileOfSheet | null][] = [
  ...["lowland-server-7", "millrace-12", "saddler-linux-24", "sedge-bsd-14"].map(
    (p) => [p, fileOf] as [string, typeof fileOf],
  ),
  ...["cairn-hypervisor-9", "tussock-host-5", "pallant-server-4"].map(
    (p) => [p, fileOf] as [string, typeof fileOf],
  ),
  ["saddler-linux-24", (plan) => imageSeedOf(plan, new Map([["root", A_HASH]]))],
];
function fileOf(plan: Plan): AnswerFileOfSheet {
  return answerFileOf(plan, new Map([["root", A_HASH]]));
}

/** The plan with another value in one field of its sheet. */
function withValue(plan: Plan, path: string, value: string): Plan {
  const [part, field] = path.split(".") as ["answers" | "network", string];
  const whole = field === "finish" ? [value] : value;
  return { ...plan, sheet: { ...plan.sheet, [part]: { ...plan.sheet[part], [field]: whole } } };
}

const countOf = (answer: AnswerFileOfSheet | null): number[] =>
  answer?.kind === "file"
    ? [answer.file, ...answer.also].map((f) => textOf(f).split(/[\n\r\u2028]/).length)
    : [];

it.each(WRITERS)(
  "%s (%#): no value adds a line or ends one, and what cannot be said is asked for",
  (profile, write) => {
    const random = seeded(profile.length);
    const pick = (count: number): number => Math.floor(random() * count);
    const plan = aBuild({
      profile: shippedProfile(profile),
      sheet: { "answers.edition": "Core", "answers.finish": ["true"] },
    });
    const sound = countOf(write(plan));
    expect(sound.length).toBeGreaterThan(0);
    const faults: string[] = [];
    let [files, open] = [0, 0];
    for (let i = 0; i < 1200; i += 1) {
      const signs = Array.from({ length: 1 + pick(4) }, () => SIGNS[pick(SIGNS.length)]!).join("");
      const value = pick(3) > 0 ? signs : `${SOUND[pick(SOUND.length)]}${pick(2) > 0 ? "" : signs}`;
      const path = PATHS[pick(PATHS.length)]!;
      const answer = write(withValue(plan, path, value));
      if (answer?.kind !== "file") {
        open += 1;
        continue;
      }
      files += 1;
      const text = textOf(answer.file);
      const told = [
        ...(profile.startsWith("lowland") ? lintKickstart(text) : []),
        ...(profile.startsWith("millrace") ? lintPreseed(text) : []),
      ];
      if (told.length > 0 || countOf(answer).join() !== sound.join())
        faults.push(`${path} ${JSON.stringify(value)}`);
    }
    expect(faults.slice(0, 5)).toEqual([]);
    // Both happen: some of the signs make sound values.
    expect([files > 20, open > 600]).toEqual([true, true]);
  },
);
