import { describe, expect, it } from "vitest";
import { aBuild, aDrive, shippedProfile, type BuildChanges } from "../../../tests/support/builds";
import { seeded } from "../../../tests/support/random";
import {
  answerFileOf,
  installIntent,
  KICKSTART_RULES,
  lintKickstart,
  readAnswers,
  textOf,
  type KickstartRule,
} from ".";
import { kickstartWords, word } from "./write";

// One intent, and the kickstart file that is written from it.

const LOWLAND = shippedProfile("lowland-server-7");
const plan = (changes: BuildChanges = {}) => aBuild({ profile: LOWLAND, ...changes });
function fileOf(changes: BuildChanges = {}) {
  const told = answerFileOf(plan(changes));
  if (told.kind !== "file") throw new Error(JSON.stringify(told));
  return { ...told.file, text: textOf(told.file) };
}
const gapsOf = (changes: BuildChanges) => {
  const drawn = installIntent(plan(changes));
  return drawn.ok ? [] : drawn.gaps.map((g) => g.path);
};
const linesWith = (text: string, begin: string): string[] =>
  text.split("\n").filter((l) => l.startsWith(begin));

describe("a kickstart file", () => {
  it("says what the sheet says, and each line names the field that it comes from", () => {
    const { text, lines, name } = fileOf();
    expect(name).toBe("wrk-hv1.ks");
    for (const [line, from] of [
      ["graphical", "image.id"],
      ["keyboard --vckeymap=gb --xlayouts=gb", "answers.keyboard"],
      ["lang en_GB.UTF-8", "answers.locale"],
      ["timezone Europe/London --utc", "answers.timeZone"],
      [
        "network --device=02:61:0a:00:00:14 --bootproto=static --ip=10.61.10.20 --netmask=255.255.255.0 --gateway=10.61.10.1 --nameserver=10.61.10.2 --onboot=yes --activate",
        "network.address",
      ],
      ["network --hostname=wrk-hv1.marrowby.example", "answers.hostName"],
    ])
      expect(lines, line).toContainEqual({ text: line, from });
    expect(lintKickstart(text)).toEqual([]);
  });

  it("makes the parts that zone D shows, with their sizes in MiB", () => {
    const { text } = fileOf();
    expect(linesWith(text, "part ")).toEqual([
      "part /boot/efi --fstype=efi --ondisk=$disk --size=600",
      "part /boot --fstype=xfs --ondisk=$disk --size=1024",
      "part pv.01 --ondisk=$disk --size=1 --grow",
    ]);
    expect(linesWith(text, "logvol ")).toEqual([
      "logvol / --vgname=system --name=root --fstype=xfs --size=71680",
      "logvol swap --vgname=system --name=swap --fstype=swap --size=16384",
      "logvol /home --vgname=system --name=home --fstype=xfs --size=1 --grow",
    ]);
    const legacy = fileOf({ sheet: { "boot.mode": "legacy" } }).text;
    expect(linesWith(legacy, "part ")[0]).toBe("part biosboot --fstype=biosboot --ondisk=$disk --size=1");
  });

  const mirror = (roles: ("member" | "spare")[], sheet: Record<string, unknown> = {}) =>
    fileOf({
      drives: ["NV-0001", "NV-0002", "NV-0003", "NV-0004"].map((id) => aDrive(id, {})),
      sheet: {
        "storage.layout": "mirror",
        "storage.partners": roles.map((role, i) => ({ drive: `NV-000${i + 2}`, role })),
        ...sheet,
      },
    });

  it("makes a mirror of every part, on drives that are each found before the first is written", () => {
    const { text } = mirror(["member"]);
    expect(lintKickstart(text)).toEqual([]);
    expect(linesWith(text, "raid ")).toEqual([
      "raid /boot/efi --device=efi --level=RAID1 --metadata=1.0 --fstype=efi raid.11 raid.12",
      "raid /boot --device=boot --level=RAID1 --fstype=xfs raid.21 raid.22",
      "raid pv.01 --device=system --level=RAID1 raid.31 raid.32",
    ]);
    expect(linesWith(text, "part ")).toHaveLength(6);
    expect(linesWith(text, "ignoredisk")).toEqual(["ignoredisk --only-use=$disk1,$disk2"]);
    for (const serial of ["NV-0001", "NV-0002"])
      expect(text.indexOf(`=$(name_of '${serial}' `)).toBeLessThan(
        text.indexOf("From here on they are written"),
      );
    const spared = /spared\(\) \{([^}]*)\}/.exec(text)?.[1] ?? "";
    for (const serial of ["NV-0003", "NV-0004"]) expect(spared).toContain(`'${serial}'`);
    expect(spared).not.toMatch(/NV-000[12]/);
    const read = readAnswers(text);
    expect(read.ok && [read.value.serial?.value, read.value.mode?.value]).toEqual(["NV-0001", "uefi"]);
    expect(read.ok && read.value.untaken.map((u) => u.why)).toContain("several drives are chosen in zone D");
  });

  it("has spares that take no part until they are wanted, and a loader part on each drive in legacy mode", () => {
    const spared = mirror(["member", "spare"]);
    expect(lintKickstart(spared.text)).toEqual([]);
    expect(linesWith(spared.text, "raid /boot --")).toEqual([
      "raid /boot --device=boot --level=RAID1 --fstype=xfs --spares=1 raid.21 raid.22 raid.23",
    ]);
    const legacy = mirror(["member"], { "boot.mode": "legacy" });
    expect(linesWith(legacy.text, "part biosboot").map((l) => l.split(" ")[3])).toEqual([
      "--ondisk=$disk1",
      "--ondisk=$disk2",
    ]);
    expect(legacy.byHand.map((g) => g.message).join()).toMatch(/boot once from each/);
    expect(spared.byHand.map((g) => g.message).join()).not.toMatch(/boot once from each/);
  });

  it("holds no secret: the installer asks for passwords, and what is opened by a key is locked until it is put in", () => {
    const accounts = [
      { name: "root", role: "super-user", logIn: "none" },
      { name: "jpell", role: "administrator", logIn: "password" },
      { name: "arkle", role: "administrator", logIn: "key" },
      { name: "probe", role: "service", logIn: "none" },
    ];
    const { text, byHand } = fileOf({ sheet: { "answers.accounts": accounts } });
    expect(linesWith(text, "rootpw")).toEqual(["rootpw --lock"]);
    // What has a line is not asked for: a locked administrator beside a locked super-user lets nobody in.
    expect(linesWith(text, "user")).toEqual([
      "user --name=arkle --groups=wheel --lock",
      "user --name=probe --shell=/sbin/nologin --lock",
    ]);
    const told = byHand.map((g) => g.message).join("\n");
    expect(told).toMatch(/set the password of jpell on the screen of the installer/);
    expect(told).toMatch(/arkle is created locked: it has no public key/);
    expect(told).not.toMatch(/probe/);
    expect(linesWith(fileOf().text, "rootpw")).toEqual([]);
    expect(
      fileOf()
        .byHand.map((g) => g.message)
        .join(),
    ).toMatch(/set the password of root on the screen of the installer/);
  });

  it("tells beside itself a swap that the sheet wants and no part is there for", () => {
    const rules = LOWLAND.partitioning!;
    const parts = rules.parts.map((p) => ({ ...p, volumes: p.volumes.filter((v) => v.fs !== "swap") }));
    const lacking = { ...LOWLAND, partitioning: { ...rules, parts } };
    const { byHand } = fileOf({ profile: lacking, sheet: { "storage.swap": "4 GiB" } });
    expect(byHand).toContainEqual({
      path: "storage.swap",
      message: expect.stringMatching(/once the system runs/),
    });
    expect(fileOf().byHand.map((g) => g.path)).not.toContain("storage.swap");
  });

  it("looks for what nobody knew of wherever the drive is known to be empty, whatever was agreed to once", () => {
    const erase = [
      { drive: "NV-0001", typed: "NV-0001", holds: "ext4", by: "J. Pell", at: "2026-11-20T08:00:00Z" },
    ];
    const holds = [{ part: "p1", sizeBytes: 9, kind: "ext4", label: null, mountedAt: [] }];
    const looks = (changes: BuildChanges): boolean => linesWith(fileOf(changes).text, "bare ").length === 1;
    expect(looks({ sheet: { "storage.erase": erase } })).toBe(true);
    expect(
      looks({ sheet: { "storage.erase": erase }, drives: [aDrive("NV-0001", { contents: holds })] }),
    ).toBe(false);
  });

  it("is not written where nobody could log in to what it installs", () => {
    for (const logIn of ["key", "none"]) {
      const accounts = [
        { name: "jpell", role: "administrator", logIn },
        { name: "probe", role: "service", logIn: "password" },
      ];
      expect(answerFileOf(plan({ sheet: { "answers.accounts": accounts } }))).toMatchObject({
        ...{
          kind: "open",
          gaps: [{ path: "answers.accounts", message: expect.stringMatching(/^no login possible/) }],
        },
      });
    }
  });

  it("says a bond, and that a bridge which looks at VLANs is made by hand", () => {
    const mac = "02:61:0a:00:00:15";
    const ports = [
      { mac: "02:61:0a:00:00:14", seenAs: "eno1", kind: "ethernet", link: "up" },
      { mac, seenAs: "eno2", kind: "ethernet", link: "up" },
    ];
    const { text, byHand } = fileOf({
      facts: { ports } as never,
      sheet: {
        "network.interfaces": [
          { id: "1", kind: "bond", name: "bond0", on: ["02:61:0a:00:00:14", mac], mode: "802.3ad" },
          { id: "2", kind: "bridge", name: "br0", on: ["bond0"], vlanAware: true },
        ],
        "network.carrier": "bond0",
      },
    });
    expect(linesWith(text, "network")[0]).toMatch(
      /^network --device=bond0 --bondslaves=eno1,eno2 --bondopts=mode=802.3ad,miimon=100,xmit_hash_policy=\S+ --bootproto=static /,
    );
    expect(byHand.map((g) => g.message).join()).toMatch(
      /bridge br0 with VLAN filtering is created at the first boot from the files of zone E/,
    );
    const port = { id: "1", kind: "port", name: "eno1", on: ["02:61:0a:00:00:14"], mtu: 9000 };
    const jumbo = fileOf({ sheet: { "network.interfaces": [port] } }).text;
    expect(linesWith(jumbo, "network")[0]).toMatch(/ --mtu=9000 --onboot=yes --activate$/);
    expect(lintKickstart(jumbo)).toEqual([]);
    expect(lintKickstart(text)).toEqual([]);
  });
});

describe("no file is written while", () => {
  const content = [{ part: "p1", sizeBytes: 9, kind: "ext4", label: null, mountedAt: [] }];
  it.each<[string, BuildChanges, string]>([
    ["no drive is chosen", { sheet: { "storage.target": null } }, "storage.target"],
    ["the drive has no serial", { drives: [aDrive("NV-0001", { serial: null })] }, "storage.target"],
    [
      "nobody has agreed that it is erased",
      { drives: [aDrive("NV-0001", { contents: content })] },
      "storage.erase",
    ],
    [
      "nobody has read what stands on it",
      { drives: [aDrive("NV-0001", { contents: null })] },
      "storage.erase",
    ],
    ["there is no host name", { sheet: { "answers.hostName": "" } }, "answers.hostName"],
    ["the locale is none", { sheet: { "answers.locale": "English" } }, "answers.locale"],
    ["the keyboard is not told", { sheet: { "answers.keyboard": "" } }, "answers.keyboard"],
    ["the time zone is none", { sheet: { "answers.timeZone": "UK time" } }, "answers.timeZone"],
    [
      "an account has no name",
      { sheet: { "answers.accounts": [{ name: "", role: "service", logIn: "none" }] } },
      "answers.accounts",
    ],
    ["the port is not chosen", { sheet: { "network.port": null } }, "network.port"],
  ])("%s", (_, changes, path) => expect(gapsOf(changes)).toContain(path));

  it("the family takes none: it says so", () => {
    const answer = answerFileOf(aBuild({ profile: shippedProfile("cistern-nas-13") }));
    expect(answer).toMatchObject({
      kind: "none",
      why: expect.stringMatching(/The installer of this OS family reads no answer file/),
    });
  });
});

const picking = (seed: number) => {
  const next = seeded(seed);
  return (count: number): number => Math.floor(next() * count);
};

describe("values", () => {
  const SIGNS = [
    '"',
    "'",
    "\\",
    "$",
    "`",
    "#",
    " ",
    "%end",
    "\n",
    "\t",
    ";",
    "$(id)",
    "--lock",
    "=",
    "é",
    "😀",
    "a",
    "Z",
    "0",
    "-",
    "\u2028",
    "]]>",
  ];

  it("are one word of a line, whatever stands in them: 100,000 of them", () => {
    const random = picking(14);
    const faults: string[] = [];
    for (let i = 0; i < 100_000; i += 1) {
      const value = Array.from({ length: 1 + random(8) }, () => SIGNS[random(SIGNS.length)])
        .join("")
        .replace(/[\n\t\u2028]/g, " ");
      const read = kickstartWords(`user --name=${word(value)} --lock`);
      if (read?.join("\n") !== `user\n--name=${value}\n--lock`) faults.push(value);
    }
    expect(faults.slice(0, 5)).toEqual([]);
  });
});

const MIRROR = fileOf({
  drives: [aDrive("NV-0001", {}), aDrive("NV-0002", {})],
  sheet: { "storage.layout": "mirror", "storage.partners": [{ drive: "NV-0002", role: "member" }] },
}).text;

describe("the linter", () => {
  const text = fileOf().text;
  const cases: Record<KickstartRule, string> = {
    line: text.trimEnd(),
    quotes: text.replace("lang en_GB.UTF-8", 'lang "en_GB.UTF-8'),
    section: text.replace(/%end\n/, ""),
    command: text.replace("firstboot --disable", "firstboots --disable"),
    option: text.replace("--utc", "--uct"),
    missing: text.replace(/^lang .*\n/m, ""),
    include: text.replace("%include /tmp/derrick-storage.ks", "%include /tmp/other.ks"),
    stops: text.replace("%pre --erroronfail", "%pre"),
    letter: text.replace("ignoredisk --only-use=$disk", "ignoredisk --only-use=sda"),
    mount: text.replace("logvol /home", "logvol /"),
    group: text.replace("volgroup system pv.01", "volgroup system pv.02"),
    array: MIRROR.replace("raid.11 raid.12\n", "raid.11 raid.19\n"),
    size: text.replace("--size=600", "--size=0"),
  };
  it.each([
    ["a member that two arrays have", "raid.21 raid.22\n", "raid.21 raid.11\n"],
    ["spares that leave one member", "raid.11 raid.12\n", "--spares=1 raid.11 raid.12\n"],
  ])("finds %s", (_, from, to) =>
    expect(lintKickstart(MIRROR.replace(from, to)).map((f) => f.rule)).toContain("array"),
  );
  it.each(Object.keys(KICKSTART_RULES) as KickstartRule[])("%s", (rule) => {
    expect([text, MIRROR]).not.toContain(cases[rule]);
    expect(lintKickstart(cases[rule]).map((f) => f.rule)).toContain(rule);
    expect(KICKSTART_RULES[rule]).not.toBe("");
  });
});
