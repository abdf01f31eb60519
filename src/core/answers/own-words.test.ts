import { describe, expect, it } from "vitest";
import { aBuild, aDrive, shippedProfile, type BuildChanges } from "../../../tests/support/builds";
import { A_HASH, A_KEY, anAccount } from "../../../tests/support/keys";
import { seeded } from "../../../tests/support/random";
import { profileSchema, type AnswerScript, type Profile, type ScriptLanguage } from "../image";
import { answerFileOf, imageSeedOf, textOf } from ".";
import { scriptIntent } from "./intent";
import { kickstartWords, writeOwnWords } from "./write";

// Files in the words of a profile, and what those words lack.

const CAIRN = shippedProfile("cairn-hypervisor-9");
const TUSSOCK = shippedProfile("tussock-host-5");
const PAIR: BuildChanges = {
  drives: [aDrive("NV-0001", {}), aDrive("NV-0002", {}), aDrive("NV-0003", {})],
  sheet: {
    "storage.layout": "mirror",
    "storage.partners": [
      { drive: "NV-0002", role: "member" },
      { drive: "NV-0003", role: "spare" },
    ],
  },
};
const told = (profile: Profile, changes: BuildChanges = {}, hashes = new Map([["root", A_HASH]])) =>
  answerFileOf(aBuild({ profile, ...changes }), hashes);
function fileOf(profile: Profile, changes: BuildChanges = {}, hashes = new Map([["root", A_HASH]])) {
  const answer = told(profile, changes, hashes);
  if (answer.kind !== "file") throw new Error(JSON.stringify(answer));
  return { ...answer.file, erases: answer.erases, text: textOf(answer.file) };
}
const byHand = (file: { byHand: { message: string }[] }): string =>
  file.byHand.map((g) => g.message).join("\n");

describe("a file in the words of a hypervisor's profile", () => {
  it("says what the sheet says, each line with its field, and tells how the drive is found", () => {
    const { text, lines, name, erases } = fileOf(CAIRN);
    expect(name).toBe("wrk-hv1.cfg");
    for (const [line, from] of [
      ["require drive serial NV-0001 bytes 480103981056", "storage.target"],
      [`password root hashed "${A_HASH}"`, "answers.accounts"],
      ["manage port 02:61:0a:00:00:14 address 10.61.10.20 mask 255.255.255.0", "network.address"],
      ["gateway 10.61.10.1", "network.address"],
    ])
      expect(lines).toContainEqual({ text: line, from });
    expect(erases).toContain(CAIRN.answerScript!.guard);
    expect(fileOf(CAIRN).text).toBe(text);
  });

  it("makes virtual switches by the lines of its own tool, which no file of zone E can", () => {
    const groups = [{ name: "Management", purpose: "management", segment: "mgmt" }];
    const one = { id: "1", kind: "virtual switch", name: "vs0", on: ["02:61:0a:00:00:14"], groups };
    const sheet = { "network.interfaces": [one], "network.carrier": "vs0" };
    expect(fileOf(CAIRN, { sheet }).text).toContain("first-start cairn-net switch uplink vs0 eno1\n");
    const wordless = {
      ...CAIRN.answerScript!,
      sections: CAIRN.answerScript!.sections.filter((s) => s.for !== "network command"),
    };
    expect(byHand(fileOf({ ...CAIRN, answerScript: wordless }, { sheet }))).toMatch(
      /the interfaces are created at the first boot/,
    );
  });

  it("tells what its words do not say: who is made by hand, whose keys, which password is asked for", () => {
    const accounts = [
      anAccount("root", "super-user", "password"),
      anAccount("jpell", "administrator", "key", [A_KEY]),
      anAccount("odd", "administrator", "password"),
    ];
    const open = fileOf(CAIRN, { sheet: { "answers.accounts": accounts } }, new Map());
    expect(open.text).not.toMatch(/password/);
    expect(byHand(open)).toMatch(/set the password of root on the screen of the installer/);
    expect(byHand(open)).toMatch(/create jpell once the system runs/);
    expect(byHand(open)).toMatch(/set the password of odd on the screen of the installer/);
    expect(byHand(open)).toMatch(/enter the licence/);
    // This installer never asks for a language, so nobody has to be told.
    expect(byHand(open)).not.toMatch(/language|time zone/);
    const asks = {
      ...CAIRN,
      screens: [{ ...CAIRN.screens[0]!, type: [{ label: "Zone", value: "{time.zone}" }] }],
    };
    expect(byHand(fileOf(asks))).toMatch(/choose the time zone/);
  });

  it("names every drive of a target and its spare, or is not written", () => {
    const { text } = fileOf(TUSSOCK, PAIR);
    expect(text).toMatch(
      /root-pool = mirror\nroot-drive\.1 = serial NV-0001 .*\nroot-drive\.2 = serial NV-0002 .*\nspare-drive\.1 = serial NV-0003 /,
    );
    expect(told(CAIRN, PAIR)).toMatchObject({ kind: "open", gaps: [{ path: "storage.layout" }] });
    const lone = { ...PAIR, sheet: { "storage.layout": "mirror" } };
    expect(told(TUSSOCK, lone)).toMatchObject({
      ...{
        kind: "open",
        gaps: [{ path: "storage.layout", message: expect.stringMatching(/needs 2 drives/) }],
      },
    });
    // Formats for one drive say so.
    expect(told(shippedProfile("millrace-12"), PAIR)).toMatchObject({
      ...{
        kind: "open",
        gaps: [
          {
            path: "storage.layout",
            message: expect.stringMatching(
              /set up a mirror of several drives on the screen of the installer/,
            ),
          },
        ],
      },
    });
  });

  it("takes no consent to one drive for that to another", () => {
    const held = [{ part: "p1", sizeBytes: 9, kind: "ext4", label: null, mountedAt: [] }];
    const drives = [aDrive("NV-0001", {}), aDrive("NV-0002", { contents: held }), aDrive("NV-0003", {})];
    expect(told(TUSSOCK, { ...PAIR, drives })).toMatchObject({
      ...{
        kind: "open",
        gaps: [
          {
            path: "storage.erase",
            message: expect.stringMatching(
              /the erasure of 1 of 3 drives is not confirmed for their present contents/,
            ),
          },
        ],
      },
    });
  });

  it("is open where a line wants what the sheet does not have, and none where the profile has no words", () => {
    const sections = [
      ...CAIRN.answerScript!.sections,
      { for: "once" as const, when: {}, lines: ["x {host.gateway}"] },
    ];
    const wanting = { ...CAIRN, answerScript: { ...CAIRN.answerScript!, sections } };
    expect(told(wanting, { sheet: { "network.gateway": "" } })).toMatchObject({
      ...{
        kind: "open",
        gaps: [{ path: "network.address", message: expect.stringMatching(/\{host\.gateway\}/) }],
      },
    });
    expect(told({ ...CAIRN, answerScript: null })).toMatchObject({ kind: "none" });
  });
});

describe("words of a profile", () => {
  const read = (change: (script: AnswerScript) => object, more = {}) =>
    profileSchema
      .safeParse({ ...CAIRN, answerScript: change(CAIRN.answerScript!), ...more })
      .error?.issues.map((i) => i.message)
      .join() ?? "";
  const section = (one: object) => (s: AnswerScript) => ({ ...s, sections: [...s.sections, one] });
  it("are refused where they name what is not there, or let the installer choose a drive", () => {
    expect(read((s) => s)).toBe("");
    expect(read(section({ lines: ["{host.colour}"] }))).toMatch(
      /host\.colour\} is unknown in a section for "once"/,
    );
    expect(read(section({ lines: ["{account.hash}"] }))).toMatch(
      /\{account\.hash\} is unknown in a section for "once"; known: /,
    );
    expect(read(section({ lines: ["drive {serial}"] }))).toMatch(/\{serial\} is unknown/);
    expect(read(section({ lines: ['x="${serial}" { "a": 1 } {}'] }))).toBe("");
    expect(read(section({ for: "key", lines: ["{account.key}"] }))).toBe("");
    expect(read(section({ lines: ["two\nlines"] }))).toMatch(/one line/);
    expect(read((s) => ({ ...s, sections: s.sections.filter((x) => x.for !== "drive") }))).toMatch(
      /choose a drive by itself/,
    );
    expect(read((s) => s, { answerFile: "kickstart" })).toMatch(/it would not be used/);
  });
});

describe("the seed of an installed image", () => {
  const seed = (changes: BuildChanges = {}, hashes = new Map([["root", A_HASH]])) =>
    imageSeedOf(aBuild({ profile: shippedProfile("saddler-linux-24"), ...changes }), hashes);
  it("needs no drive, and somebody who is let in: nobody is asked for a password", () => {
    expect(seed({ sheet: { "storage.target": null } })).toMatchObject({ kind: "file", also: [{}, {}] });
    expect(seed({}, new Map())).toMatchObject({ kind: "open", gaps: [{ path: "answers.accounts" }] });
    expect(seed({ sheet: { "network.address": "10.61" } })).toMatchObject({ kind: "open" });
    expect(imageSeedOf(aBuild({ profile: CAIRN }))).toBeNull();
  });

  it("opens the super-user to its keys, which it would shut else", () => {
    const sheet = { "answers.accounts": [anAccount("root", "super-user", "key", [A_KEY])] };
    const answer = seed({ sheet });
    expect(answer?.kind === "file" && textOf(answer.file)).toMatch(
      /ssh_pwauth: false\ndisable_root: false\n/,
    );
  });
});

/** How a reader of each language takes the line apart again: what stood in it, or null where it reads something else. */
const READERS: Record<ScriptLanguage, { line: string; read: (text: string) => string | null }> = {
  words: {
    line: "drive {drive.serial} end",
    read: (text) => {
      const all = kickstartWords(text) ?? [];
      return all.length === 3 && all[0] === "drive" && all[2] === "end" ? all[1]! : null;
    },
  },
  // Inside single quotes nothing has a meaning but the quote; outside of them only what needs none stands.
  shell: {
    line: "drive {drive.serial} end",
    read: (text) => {
      const own = /^drive (?:'([^']*(?:'\\''[^']*)*)'|([A-Za-z0-9_./:@%+=,-]+)) end$/.exec(text);
      return own ? (own[2] ?? own[1]!.replaceAll("'\\''", "'")) : null;
    },
  },
  xml: {
    line: '<drive serial="{drive.serial}"/>',
    read: (text) => {
      const own = /^<drive serial="([^<>"&']*(?:&(?:amp|lt|gt|quot|apos);[^<>"&']*)*)"\/>$/.exec(text);
      const signs: Record<string, string> = { amp: "&", lt: "<", gt: ">", quot: '"', apos: "'" };
      return own ? own[1]!.replace(/&(\w+);/g, (_, name: string) => signs[name]!) : null;
    },
  },
};
const SIGNS = [
  ...[
    "'",
    '"',
    "\\",
    "$",
    "`",
    ";",
    "&",
    "<",
    ">",
    "]]>",
    "-->",
    "%end",
    "$(",
    "}",
    "{host.name}",
    " ",
    "#",
    "|",
  ],
  ...["é", "😀", "\u00a0", "a", "=", "\t", "\n", "\u2028"],
];

it("no value ever leaves its place, in any of the languages: 102,000 of them", () => {
  const random = seeded(77);
  const drawn = scriptIntent(aBuild({ profile: TUSSOCK }));
  if (!drawn.ok) throw new Error(JSON.stringify(drawn.gaps));
  const { target } = drawn.intent;
  const [first] = target.drives;
  const quiet = { ...TUSSOCK, screens: [], firstBoot: [] };
  const faults: string[] = [];
  let written = 0;
  for (const language of ["words", "shell", "xml"] as const) {
    const { line, read } = READERS[language];
    const script: AnswerScript = {
      ...{ ending: ".x", language, guard: "x", leaves: [] },
      sections: [{ for: "drive", when: {}, lines: [line] }],
    };
    for (let i = 0; i < 34_000; i += 1) {
      const parts = Array.from(
        { length: 1 + Math.floor(random() * 5) },
        () => SIGNS[Math.floor(random() * SIGNS.length)]!,
      );
      const serial = parts.join("").trim();
      const drives: typeof target.drives = [{ ...first, drive: { ...first.drive, serial } }];
      const file = writeOwnWords({ ...drawn.intent, target: { ...target, drives } }, script, quiet);
      const isFit = serial !== "" && !/[\p{Cc}\u2028]/u.test(serial);
      if (Array.isArray(file) === isFit)
        faults.push(`${language}: ${JSON.stringify(serial)} is fit: ${isFit}`);
      if (Array.isArray(file)) continue;
      written += 1;
      const [only, ...others] = file.lines.map((l) => l.text);
      if (others.length > 0 || read(only!) !== serial)
        faults.push(`${language}: ${JSON.stringify(serial)}: ${only}`);
    }
  }
  expect(faults.slice(0, 5)).toEqual([]);
  expect(written).toBeGreaterThan(60_000);
}, 60_000);
