import { spawnSync } from "node:child_process";
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, expect, it } from "vitest";
import { parse, stringify } from "yaml";
import { answerFileOf, imageSeedOf, textOf, type AnswerFileOfSheet } from "@/core/answers";
import { aBuild, aDrive, shippedProfile, type BuildChanges } from "../support/builds";
import { A_HASH, A_KEY, anAccount } from "../support/keys";

// Files before the programs that know their formats. One that cannot be run fails its test.

const folder = mkdtempSync(join(tmpdir(), "derrick-validators-"));
afterAll(() => rmSync(folder, { recursive: true, force: true }));
const MODULES = "/usr/lib/python3/dist-packages/cloudinit/config";
const HASHES = new Map([
  ["root", A_HASH],
  ["jpell", A_HASH],
]);
const ACCOUNTS = [
  anAccount("root", "super-user", "key", [A_KEY]),
  anAccount("jpell", "administrator", "password"),
  anAccount("guard", "ordinary", "key", [A_KEY]),
  anAccount("probe", "service", "none"),
];
const VLAN = {
  "network.interfaces": [{ id: "1", kind: "vlan", name: "eno1.30", on: ["02:61:0a:00:00:14"], vlan: 30 }],
  "network.carrier": "eno1.30",
};
/** Sheets that reach every branch of what they are written with. */
const SHEETS: BuildChanges["sheet"][] = [
  {},
  {
    ...{ "answers.source": "http://mirror.works.example/os/", "answers.proxy": "http://10.61.10.8:3128" },
    ...{ "answers.components": ["tmux"], "answers.services": ["chrony"] },
    "answers.finish": ["tune 'a; b' \"$HOME\"", "%end", "echo ]]> & <x> >> /root/built"],
  },
  {
    "answers.finish": ["- a: b", "true # \\"],
    "answers.accounts": ACCOUNTS,
    "answers.domain": "",
    "answers.keyboard": "de-nodeadkeys",
  },
  { "network.school": "dynamic", "boot.mode": "legacy", ...VLAN },
  { "network.gateway": "", "network.nameServers": [], "answers.accounts": ACCOUNTS.slice(1, 2) },
];

const filesOf = (answer: AnswerFileOfSheet | null) => {
  if (answer?.kind !== "file") throw new Error(JSON.stringify(answer));
  return [answer.file, ...answer.also];
};
function run(program: string, ...words: string[]) {
  const { error, status, stdout, stderr } = spawnSync(program, words, { encoding: "utf8" });
  if (error) throw error;
  return { status, said: `${stdout}${stderr}` };
}
function schemaSays(text: string): string {
  const file = join(folder, "user-data");
  writeFileSync(file, text);
  const { status, said } = run("cloud-init", "schema", "--config-file", file);
  return status === 0 && /Valid cloud-config/.test(said) ? "" : said;
}
const sheetsOf = (profile: string, changes: BuildChanges = {}) =>
  SHEETS.map((sheet) =>
    aBuild({ profile: shippedProfile(profile), ...changes, sheet: { "answers.edition": "Core", ...sheet } }),
  );

it("cloud-init takes the seed of an installed image, whatever the sheet says, and refuses one that is not sound", () => {
  const others = ["millrace-12", "lowland-server-7"].map((p) => sheetsOf(p)[1]!);
  const known = readFileSync(`${MODULES}/schemas/schema-cloud-config-v1.json`, "utf8");
  for (const plan of [...sheetsOf("saddler-linux-24"), ...others]) {
    const [userData, metaData, network] = filesOf(imageSeedOf(plan, HASHES));
    expect(schemaSays(textOf(userData!))).toBe("");
    // It takes a word that it does not know in silence.
    for (const word of Object.keys(parse(textOf(userData!)) as object))
      expect(known).toContain(`"${word}": {`);
    expect(parse(textOf(metaData!))).toMatchObject({ "local-hostname": "wrk-hv1" });
    expect(parse(textOf(network!))).toMatchObject({ version: 2 });
  }
  expect(schemaSays("#cloud-config\nusers: 7\nlocale: [a]\n")).not.toBe("");
});

it("cloud-init takes what the installer hands on to it", () => {
  for (const plan of sheetsOf("saddler-linux-24")) {
    const [userData, metaData, vendorData] = filesOf(answerFileOf(plan, HASHES));
    expect(schemaSays(textOf(userData!))).toBe("");
    const { autoinstall } = parse(textOf(userData!)) as { autoinstall: { "user-data": object } };
    expect(schemaSays(`#cloud-config\n${stringify(autoinstall["user-data"])}`)).toBe("");
    expect(parse(textOf(metaData!))).toHaveProperty("instance-id");
    // It is there and says nothing: one that is missing is asked for again and again.
    expect([vendorData!.name, textOf(vendorData!)]).toEqual(["wrk-hv1.vendor-data", ""]);
  }
});

it("the network of a seed is netplan's own", () => {
  for (const plan of sheetsOf("saddler-linux-24")) {
    const network = filesOf(imageSeedOf(plan, HASHES))[2]!;
    const root = mkdtempSync(join(folder, "netplan-"));
    run("mkdir", "-p", join(root, "etc/netplan"));
    const file = join(root, "etc/netplan/50.yaml");
    writeFileSync(file, stringify({ network: parse(textOf(network)) as object }), { mode: 0o600 });
    const { status, said } = run("netplan", "generate", "--root-dir", root);
    // It has a word for the older keys of a gateway, and takes them.
    expect([status, said.replace(/^.*`gateway[46]` has been deprecated.*\n.*\n|\n/gm, "")]).toEqual([0, ""]);
  }
});

/** A system that cloud-init itself writes for in this way. */
function distroOf(renderer: string): string {
  if (renderer !== "sysconfig") return "debian";
  const find = [
    "import cloudinit.distros as d, pkgutil",
    "for m in sorted(i.name for i in pkgutil.iter_modules(d.__path__)):",
    "    try: c = d.fetch(m)",
    "    except ImportError: continue",
    "    if 'route_templates' in getattr(c, 'renderer_configs', {}).get('sysconfig', {}): print(m)",
  ];
  return run("/usr/bin/python3", "-c", find.join("\n")).said.split("\n")[0]!;
}

it.each(["eni", "networkd", "sysconfig", "network-manager", "netplan"])(
  "cloud-init's own %s renderer writes the way out of a seed",
  (renderer) => {
    const sheets = [{}, { "network.address": "2001:db8:61::20", "network.gateway": "2001:db8:61::1" }];
    for (const sheet of sheets) {
      const plan = aBuild({ profile: shippedProfile("saddler-linux-24"), sheet });
      const network = filesOf(imageSeedOf(plan, HASHES))[2]!;
      const gateway = plan.sheet.network.gateway;
      const root = mkdtempSync(join(folder, "rendered-"));
      const file = join(root, "network-config");
      writeFileSync(file, textOf(network));
      const by = [
        "--kind",
        "yaml",
        "--distro",
        distroOf(renderer),
        "--mac",
        `eno1,${plan.sheet.network.port}`,
      ];
      const { status, said } = run(
        ...["cloud-init", "devel", "net-convert", "--network-data", file, "--directory", join(root, "out")],
        ...by,
        ...["--output-kind", renderer],
      );
      expect([status, said.includes("Traceback")], said).toEqual([0, false]);
      expect(run("grep", "-rhoF", gateway, join(root, "out")).said).toContain(gateway);
    }
  },
);

it("xmllint takes the XML of a graphical server, with every sign of a serial in its place", () => {
  const schema = "tests/fixtures/answers/pallant-answers.xsd";
  const judge = (text: string) => {
    const file = join(folder, "answers.xml");
    writeFileSync(file, text);
    return run("xmllint", "--noout", "--nonet", "--schema", schema, file);
  };
  for (const serial of ["NV-0001", "a<b>&\"c'", "]]>", "<!--", "&lt;", "é日", "{host.name}"])
    for (const plan of sheetsOf("pallant-server-4", { drives: [aDrive("NV-0001", { serial })] })) {
      const text = textOf(filesOf(answerFileOf(plan, HASHES))[0]!);
      const { status, said } = judge(text);
      expect([status, said.trim()]).toEqual([0, `${join(folder, "answers.xml")} validates`]);
      const file = join(folder, "answers.xml");
      expect(run("xmllint", "--xpath", "string(//disk/serial)", file).said.trim()).toBe(serial);
    }
  expect(judge('<pallant-answers version="4"><language/></pallant-answers>').status).not.toBe(0);
});

it("no XML is written with a sign that XML cannot hold", () => {
  const plan = aBuild({
    profile: shippedProfile("pallant-server-4"),
    sheet: { "answers.edition": "Core" },
    drives: [aDrive("NV-0001", { serial: "a\u0001b" })],
  });
  expect(answerFileOf(plan, HASHES)).toMatchObject({
    ...{
      kind: "open",
      gaps: [{ path: "storage.target", message: expect.stringMatching(/no line of a file/) }],
    },
  });
});
