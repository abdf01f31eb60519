import { describe, expect, it } from "vitest";
import { aBuild, shippedProfile } from "../../../tests/support/builds";
import { A_HASH } from "../../../tests/support/keys";
import { sourceProblem } from "../network";
import {
  answerFileOf,
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
  ["ftp://a/", /begins with http/],
  ["http://a b/", /no blanks/],
  ["http://a/'", /no blanks or quotes/],
  ["http://me@mirror/", /would stand in the file/],
  ["http://me:pw@mirror/", /would stand in the file/],
  ["http://", /begins with|no address/],
  ["http://:80/", /no address/],
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
    expect(alone.byHand).toMatch(/answers\.proxy: .*\nanswers\.components: what is installed beside/);
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
    expect(fileOf("millrace-12", {}).byHand).toMatch(/mirror is answered on the screen/);
  });

  it("autoinstall and the seed of an image: packages, and groups by hand", () => {
    const { text, byHand } = fileOf("saddler-linux-24");
    expect(text).toMatch(/\n  proxy: http:\/\/10\.61\.10\.8:3128\n  apt:\n    primary:\n/);
    expect(text).toMatch(/\n  packages:\n    - tmux\n/);
    expect(text).toContain("curtin in-target --target=/target -- systemctl enable chronyd");
    expect(byHand).toMatch(/the group core is added once/);
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
    expect(cairn.byHand).toMatch(/answers\.components: @core, tmux is no matter of this format/);
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
    expect(own.file.byHand.map((g) => g.path)).toEqual(["image.id"]);
  });
});
