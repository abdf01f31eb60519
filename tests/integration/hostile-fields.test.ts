import { describe, expect, it } from "vitest";
import { aBuild, aDrive, shippedProfile, type BuildChanges } from "../support/builds";
import { A_HASH } from "../support/keys";
import { answerFileOf, commandsOf, imageSeedOf, textOf, type AnswerFileOfSheet } from "@/core/answers";
import { isBag, readDocument, valueAt, type DocumentKind } from "@/core/document";
import { imageDocument } from "@/core/image";
import { machineDocument } from "@/core/machine";
import { siteDocument } from "@/core/site";
import { firstBootScript, grubInstall, ipxeInstall } from "@/core/netboot";
import {
  hostPlan,
  NETWORK_WRITERS,
  writeCommands,
  writeDnsmasq,
  writeHosts,
  writeKea,
  writeKea6,
  writeReverseZones,
  writeSshConfig,
  writeZone,
  type SitePlan,
} from "@/core/network";
import { setScripts } from "@/core/storage";
import { derive, sheetDocument, type Plan } from "@/core/sheet";

// Every text of every document through every writer. What no stored text may hold never comes so far; a writer that gets it all
// the same makes no line of it: lines are where formats begin a section, a command or a setting of their own.

const ROOTS = ["sheet", "machine", "site", "image", "profile"] as const;
const LINE = "injected-line";

/** The paths of all texts below a value. */
function textsBelow(value: unknown, path: string): string[] {
  if (typeof value === "string") return [path];
  if (Array.isArray(value)) return value.flatMap((one, i) => textsBelow(one, `${path}.${i}`));
  if (!isBag(value)) return [];
  return Object.entries(value).flatMap(([key, inner]) =>
    key.includes(".") ? [] : textsBelow(inner, path === "" ? key : `${path}.${key}`),
  );
}

const MACS = ["02:61:0a:00:00:14", "02:61:0a:00:00:15"];
const RICH: BuildChanges = {
  facts: {
    ports: MACS.map((mac, i) => ({ mac, seenAs: `eno${i + 1}`, kind: "ethernet", link: "up" })),
  } as never,
  drives: [aDrive("NV-0001", { bay: "0" }), aDrive("CB-01", { bay: "1" }), aDrive("CB-02", { bay: "2" })],
  sheet: {
    "answers.edition": "Core",
    "answers.finish": ["true"],
    "answers.firstStart": ["true"],
    "answers.components": ["tmux"],
    "answers.services": ["chrony"],
    "answers.source": "http://mirror.works.example/os/",
    "answers.proxy": "http://10.61.10.8:3128",
    "answers.parameters": [{ name: "site-key", value: "x", isSecret: false }],
    "network.interfaces": [
      { id: "1", kind: "bond", name: "bond0", on: MACS, mode: "802.3ad" },
      { id: "2", kind: "vlan", name: "mgmt", on: ["bond0"], vlan: 5 },
    ],
    "network.carrier": "mgmt",
  },
};

type Texts = [writer: string, text: string][];
const answers = (name: string, told: AnswerFileOfSheet | null): Texts =>
  told?.kind === "file" ? [told.file, ...told.also].map((f) => [name, textOf(f)]) : [];

/** The plan with another text at a path, and all that follows from it. */
function withText(plan: Plan, path: string, hostile: string): Plan {
  const [root = "", ...keys] = path.split(".");
  const next = { ...plan, [root]: structuredClone(plan[root as (typeof ROOTS)[number]]) };
  const last = keys.pop()!;
  const holder = [root, ...keys].reduce<Record<string, unknown>>((at, key) => at[key] as never, next);
  holder[last] = `${String(holder[last])}${hostile}`;
  return derive(next);
}

/** Whether the hostile text stands at the beginning of a line; to what is read as JSON, U+2028 is a character like others. */
const breaksOut = (writer: string, text: string): boolean =>
  (writer.startsWith("writeKea") ? /[\n\r]\s*injected-line/ : /(?:^|[\n\r\u2028])\s*injected-line/).test(
    text,
  );

/** All that is written of a plan. */
function written(plan: Plan): Texts {
  const { hostName, domain } = plan.sheet.answers;
  const hashes = new Map([["root", A_HASH]]);
  const network = hostPlan(plan, { hostName, domain });
  const site = plan.site;
  const whole: SitePlan | null = site && {
    name: site.name,
    domain: site.domain,
    segments: site.segments,
    hosts: [
      { name: hostName, address: plan.sheet.network.address, mac: null },
      ...site.devices.map((d) => ({ name: d.name, address: d.address, mac: null })),
      ...site.segments.flatMap((s) => s.reservations),
    ] as SitePlan["hosts"],
  };
  const files = { kernel: "http://a/k", initrd: ["http://a/i"], words: ["quiet"] };
  const title = `installing ${plan.machine?.name} with ${plan.image?.name}`;
  const commands = plan.profile ? writeCommands(plan, plan.profile.network) : null;
  return [
    ...answers("answer file", answerFileOf(plan, hashes, true)),
    ...answers("seed", imageSeedOf(plan, hashes)),
    ...Object.entries(NETWORK_WRITERS).flatMap(([name, write]): Texts =>
      network.ok ? write(network.value).files.map((f) => [name, f.text]) : [],
    ),
    ...(commands?.ok ? ([["commands", commands.value.lines.join("\n")]] as Texts) : []),
    ...setScripts(plan, plan.sheet.subject).map((s): [string, string] => ["set script", s.text ?? ""]),
    ["ipxe", ipxeInstall(files, title)],
    ["grub", grubInstall(files, title)],
    [
      "first boot",
      firstBootScript({
        report: "http://a/",
        actions: commandsOf(plan, "firstStart", hashes).commands,
        ready: [],
        secrets: [],
      }),
    ],
    ...(whole
      ? ([
          ...[writeDnsmasq, writeKea, writeKea6, writeHosts, writeSshConfig].map((write) => [
            write.name,
            write(whole)?.text ?? "",
          ]),
          ...[writeZone(whole, 7)].map((f) => ["zone", f?.text ?? ""]),
          ...writeReverseZones(whole, 7).map((f) => ["reverse zone", f.text]),
        ] as Texts)
      : []),
  ];
}
describe.each([
  "lowland-server-7",
  "millrace-12",
  "saddler-linux-24",
  "sedge-bsd-14",
  "cairn-hypervisor-9",
  "tussock-host-5",
  "pallant-server-4",
])("every text of the documents of a sheet for %s", (profile) => {
  const plan = aBuild({ profile: shippedProfile(profile), ...RICH });
  const paths = ROOTS.flatMap((root) => textsBelow(plan[root], root));

  it("is refused where it is stored when it holds what is not seen, with its place", () => {
    const documents = [
      [sheetDocument, plan.sheet, "sheet"],
      [machineDocument, plan.machine!.document, "machine.document"],
      [siteDocument, plan.site!, "site"],
      [imageDocument, plan.image!, "image"],
    ] as const;
    for (const [definition, document, root] of documents) {
      expect(readDocument(definition as DocumentKind, document)).toMatchObject({ ok: true });
      for (const path of textsBelow(document, "")) {
        const next = withText(plan, `${root}.${path}`, "\u202e");
        const read = readDocument(definition as DocumentKind, valueAt({ ...next }, root));
        expect([path, !read.ok && read.problems.length > 0]).toEqual([path, true]);
      }
    }
  });

  it("makes no line of its own in anything that is written", () => {
    const sound = written(plan);
    expect(sound.length).toBeGreaterThan(10);
    const faults = new Set<string>();
    let [thrown, kept] = [0, 0];
    for (const path of paths)
      for (const hostile of [`\n${LINE}`, `a\r${LINE}`, `'\n${LINE} '`, `"\n${LINE}\n"`, `a\u2028${LINE}`]) {
        let texts: Texts;
        try {
          texts = written(withText(plan, path, hostile));
        } catch {
          // A plan that no document can hold, such as one of a kind that there is not: nothing is written.
          thrown += 1;
          continue;
        }
        kept += 1;
        for (const [writer, text] of texts) if (breaksOut(writer, text)) faults.add(`${path} in ${writer}`);
      }
    expect([...faults]).toEqual([]);
    expect(kept).toBeGreaterThan(5 * thrown);
  });
});
