import { describe, expect, it } from "vitest";
import { aBuild, shippedProfile } from "../../../tests/support/builds";
import { A_HASH } from "../../../tests/support/keys";
import { sourceProblem } from "../network";
import {
  answerFileOf,
  commandProblem,
  componentProblem,
  imageSeedOf,
  lintKickstart,
  lintPreseed,
  serviceProblem,
  textOf,
} from ".";

const SHEET = {
  "answers.source": "http://mirror.works.example/os/",
  "answers.proxy": "http://10.61.10.8:3128",
  "answers.components": ["@core", "tmux"],
  "answers.services": ["chronyd", "node-exporter@1"],
};
const HASHES = new Map([["root", A_HASH]]);
function fileOf(profile: string, sheet: Record<string, unknown> = SHEET) {
  const told = answerFileOf(aBuild({ profile: shippedProfile(profile), sheet }), HASHES);
  if (told.kind !== "file") throw new Error(JSON.stringify(told));
  return {
    text: textOf(told.file),
    lines: told.file.lines,
    byHand: told.file.byHand.map((g) => `${g.path}: ${g.message}`).join("\n"),
  };
}

it.each([
  ["http://mirror.works.example/os/7/", null],
  ["https://[2001:db8::1]:8443/a?b=c", null],
  ["", null],
  ["ftp://a/", /it must begin with http:\/\/ or https:\/\//],
  ["http://a b/", /it must begin with http:\/\/ or https:\/\//],
  ["http://a/'", /without spaces or quotes/],
  ["http://me@mirror/", /which would be readable in files/],
  ["http://me:pw@mirror/", /which would be readable in files/],
  ["http://", /it must begin with http:\/\/ or https:\/\//],
  ["http://:80/", /it is not an address/],
  [`http://a/${"b".repeat(300)}`, /longer than/],
])("a source: %s", (text, words) => {
  if (words === null) expect(sourceProblem(text)).toBeNull();
  else expect(sourceProblem(text)).toMatch(words);
});

it("names of packages, groups and services are words of their own", () => {
  for (const word of ["tmux", "@core", "@^minimal-environment", "lib32-x", "g++", "python3.11"])
    expect(componentProblem(word)).toBeNull();
  for (const word of ["", "-x", "@", "a b", "a;b", "$(x)", "%end", "a\nb", "@@x", "x".repeat(101)])
    expect(componentProblem(word), word).not.toBeNull();
  for (const word of ["chronyd", "getty@tty1", "a.service"]) expect(serviceProblem(word)).toBeNull();
  for (const word of ["", "-x", "a b", "a,b", "a'b", "../x"])
    expect(serviceProblem(word), word).not.toBeNull();
});

it("a command is one line that others may read", () => {
  for (const command of [
    "systemctl mask ctrl-alt-del.target",
    "echo 'a;b' > \"$HOME/x\"",
    "%end",
    "curl http://a/b",
  ])
    expect(commandProblem(command), command).toBeNull();
  for (const command of ["", "  ", "a\nb", "a\u2028b", "x".repeat(401), "curl http://me:pw@a/b"])
    expect(commandProblem(command), command).not.toBeNull();
  expect(commandProblem("curl https://me:s3cret@a/b")).not.toContain("s3cret");
});

describe("commands at the end of the installation of the installation of an installation", () => {
  const FINISH = ["tune --profile 'small; box' \"$(id -un)\"", "%end", "echo done >> /root/built"];
  const sheet = { "answers.finish": FINISH };
  const quoted = [
    `sh -c 'tune --profile '\\''small; box'\\'' "$(id -un)"'`,
    "sh -c %end",
    "sh -c 'echo done >> /root/built'",
  ];

  it("stand in a section of their own, which none of them ends", () => {
    const { text, lines } = fileOf("lowland-server-7", sheet);
    expect(lintKickstart(text)).toEqual([]);
    expect(text).toContain(
      ["", "%post --erroronfail --log=/root/derrick-finish.log", "set -e", ...quoted, "%end", ""].join("\n"),
    );
    expect(lines.find((l) => l.text === quoted[1])?.from).toBe("answers.finish");
    expect(fileOf("lowland-server-7", {}).text).not.toContain("%post");
  });

  it("are the last command of the text installer, and of the live one", () => {
    expect(fileOf("millrace-12", sheet).text).toMatch(
      /late_command string in-target sh -c '.*sh -c %end; sh -c /,
    );
    expect(fileOf("saddler-linux-24", sheet).text).toContain(
      "- curtin in-target --target=/target -- sh -c %end\n",
    );
    expect(fileOf("saddler-linux-24", { ...sheet, ...SHEET }).text.match(/late-commands/g)).toHaveLength(1);
    const seed = imageSeedOf(aBuild({ profile: shippedProfile("saddler-linux-24"), sheet }), HASHES);
    expect(seed?.kind === "file" && textOf(seed.file)).toContain('- - sh\n    - -c\n    - "%end"\n');
  });

  it("are run in the new root by a BSD, are words of a hypervisor, and by hand where the format has none", () => {
    expect(fileOf("sedge-bsd-14", sheet).text).toMatch(/\nchroot \S+ sh -c %end\n/);
    expect(fileOf("cairn-hypervisor-9", sheet).text).toContain(
      `\nfirst-start ${FINISH[0]}\nfirst-start %end\n`,
    );
    const pallant = fileOf("pallant-server-4", { ...sheet, "answers.edition": "Core" });
    expect(pallant.byHand).toMatch(
      /answers\.finish: the commands at the end of the installation: not supported by this format/,
    );
  });
});

describe("what else the installer asks", () => {
  it("no file is written while the edition is open, or is none of the family's", () => {
    const of = (edition: string) =>
      answerFileOf(
        aBuild({ profile: shippedProfile("pallant-server-4"), sheet: { "answers.edition": edition } }),
        HASHES,
      );
    expect(of("")).toMatchObject({ kind: "open", gaps: [{ path: "answers.edition" }] });
    expect(of("Corer")).toMatchObject({ kind: "open", gaps: [{ path: "answers.edition" }] });
    const core = of("Core");
    expect(core.kind === "file" && textOf(core.file)).toContain('<edition name="Core"/>');
    // Families whose installers ask for none take no notice of it.
    expect(fileOf("lowland-server-7", { "answers.edition": "Corer" }).text).not.toContain("Corer");
  });

  it("the key of a licence stands in no file: a person types it, where one was bought", () => {
    const words = /handOver\.licence: type the licence key/;
    expect(fileOf("cairn-hypervisor-9", {}).byHand).toMatch(words);
    expect(fileOf("cairn-hypervisor-9", { "handOver.licence": "evaluation" }).byHand).not.toMatch(words);
    expect(fileOf("lowland-server-7", {}).byHand).not.toMatch(words);
  });
});

describe("what files say of packages and services", () => {
  it("kickstart: the source with its proxy, a section of packages, services", () => {
    const { text, lines, byHand } = fileOf("lowland-server-7");
    expect(lintKickstart(text)).toEqual([]);
    expect(lines).toContainEqual({
      text: "url --url=http://mirror.works.example/os/ --proxy=http://10.61.10.8:3128",
      from: "answers.source",
    });
    expect(text).toContain("\nservices --enabled=chronyd,node-exporter@1\n");
    expect(text).toContain("\n%packages\n@core\ntmux\n%end\n");
    expect(byHand).not.toMatch(/components|proxy/);
    const alone = fileOf("lowland-server-7", { "answers.proxy": SHEET["answers.proxy"] });
    expect(alone.text).not.toMatch(/^url|%packages/m);
    expect(alone.byHand).toMatch(/answers\.proxy: .*\nanswers\.components: choose additional software/);
  });

  it("preseed: the mirror in its parts, tasks and packages, services by its last command", () => {
    const { text, byHand } = fileOf("millrace-12", {
      ...SHEET,
      "answers.source": "https://mirror.works.example:8443/os",
    });
    expect(lintPreseed(text)).toEqual([]);
    for (const line of [
      "d-i mirror/protocol select https",
      "d-i mirror/https/hostname string mirror.works.example:8443",
      "d-i mirror/https/directory string /os",
      "d-i mirror/https/proxy string http://10.61.10.8:3128",
      "tasksel tasksel/first multiselect core",
      "d-i pkgsel/include string tmux",
    ])
      expect(text.split("\n")).toContain(line);
    expect(text).toMatch(
      /late_command string in-target sh -c '.*systemctl enable chronyd; systemctl enable node-exporter@1'/,
    );
    expect(byHand).not.toMatch(/mirror|components/);
    expect(fileOf("millrace-12", {}).byHand).toMatch(/answer the mirror question on the screen/);
  });

  it("autoinstall and the seed of an image: packages, and groups by hand", () => {
    const { text, byHand } = fileOf("saddler-linux-24");
    expect(text).toMatch(/\n  proxy: http:\/\/10\.61\.10\.8:3128\n  apt:\n    primary:\n/);
    expect(text).toMatch(/\n  packages:\n    - tmux\n/);
    expect(text).toContain("curtin in-target --target=/target -- systemctl enable chronyd");
    expect(byHand).toMatch(/add the group core once the system runs/);
    const seed = imageSeedOf(aBuild({ profile: shippedProfile("saddler-linux-24"), sheet: SHEET }), HASHES);
    if (seed?.kind !== "file") throw new Error("no seed");
    expect(textOf(seed.file)).toMatch(/packages:\n {2}- tmux\nruncmd:\n/);
    expect(seed.file.byHand.map((g) => g.path)).toEqual([
      "answers.components",
      "answers.source",
      "answers.proxy",
    ]);
  });

  it("a BSD and words of a profile: services where they have a line, the rest by hand", () => {
    const bsd = fileOf("sedge-bsd-14");
    expect(bsd.text).toContain('\nchronyd_enable="YES"\nnode_exporter_1_enable="YES"\n');
    expect(bsd.byHand).toMatch(/pkg install @core tmux/);
    const cairn = fileOf("cairn-hypervisor-9");
    expect(cairn.byHand).toMatch(/answers\.components: @core, tmux: not supported by this format/);
    expect(cairn.byHand).toMatch(/answers\.services: /);
    const script = shippedProfile("cairn-hypervisor-9").answerScript!;
    const sections = [
      ...script.sections,
      { for: "component" as const, when: {}, lines: ["add {component.name}"] },
      { for: "service" as const, when: {}, lines: ["start {service.name}"] },
      {
        for: "once" as const,
        when: { source: true, proxy: true },
        lines: ["from {source.url} by {source.proxy}"],
      },
    ];
    const profile = { ...shippedProfile("cairn-hypervisor-9"), answerScript: { ...script, sections } };
    const own = answerFileOf(aBuild({ profile, sheet: SHEET }), HASHES);
    if (own.kind !== "file") throw new Error(JSON.stringify(own));
    expect(textOf(own.file)).toContain(
      "add @core\nadd tmux\nstart chronyd\nstart node-exporter@1\nfrom http://mirror.works.example/os/ by http://10.61.10.8:3128\n",
    );
    expect(own.file.byHand.map((g) => g.path)).toEqual(["handOver.licence", "image.id"]);
  });
});
