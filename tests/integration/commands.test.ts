import { spawnSync } from "node:child_process";
import { existsSync, mkdtempSync, readFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterEach, describe, expect, it } from "vitest";
import { answerFileOf, textOf } from "@/core/answers";
import type { Drive } from "@/core/machine";
import { setScript } from "@/core/storage";
import { aBuild, aDrive, shippedProfile } from "../support/builds";
import { bulks, withSet } from "../support/firing-sets";
import { lendsLoops, scriptedMachine, type ScriptedDrive } from "../support/scripted-drives";

const BYTES = 64 * 2 ** 20 + 512;
const EXTFS = [{ part: "p1", sizeBytes: 9, kind: "ext4", label: null, mountedAt: [] }];

/** The script of the sheet's only set, over small drives; the target must not be touched. */
function scriptOf(set: object, of: (i: number) => Partial<Drive> = () => ({}), more: object = {}): string {
  const drives = bulks(4, (i) => ({ sizeBytes: BYTES, ...of(i) }));
  const plan = aBuild(
    withSet({ type: "raidz1", ...set }, drives, { sheet: more as Record<string, unknown> }),
  );
  const script = setScript(plan, plan.sheet.storage.sets[0]!, "B-0001 rev A");
  if (!script.ok) throw new Error(script.problems[0]!.message);
  return script.value;
}
const consents = (...drives: string[]) => ({
  "storage.erase": drives.map((drive) => ({
    ...{ drive, typed: drive, holds: "ext4", by: "J. Pell", at: "2026-11-20T08:00:00Z" },
  })),
});

/** The list of arrays of the machine that the tests run on is left alone. */
const CONF = /\/etc\/mdadm(?:\/mdadm)?\.conf/g;

/** An array with a volume of a size, which comes second, and one that takes the rest. */
function onArray(provision: string): string {
  const volumes = [
    { name: "rest", fs: "xfs" },
    { name: "a", bytes: 5e6 },
  ];
  return scriptOf(
    { ...{ keeper: "md", type: "1", provision, volumes, name: "store" }, members: ["CB-01", "CB-02"] },
    () => ({ sizeBytes: BYTES * 8 }),
  );
}

let machine: ReturnType<typeof scriptedMachine> | null = null;
afterEach(() => {
  machine?.end();
  machine = null;
});
const standing = (changes: Record<number, Partial<ScriptedDrive>> = {}, loops = false) =>
  (machine = scriptedMachine(
    [
      { serial: "NV-0001", bytes: 1e6 },
      ...[1, 2, 3, 4].map((n) => ({ serial: `CB-0${n}`, bytes: BYTES, ...changes[n] })),
    ],
    loops,
  ));

const SCRIPTS: [what: string, script: string][] = [
  ["a pool", scriptOf({})],
  [
    "a pool of mirrors with a spare",
    scriptOf({ type: "mirror", members: ["CB-01", "CB-02"], spares: ["CB-03"] }),
  ],
  ["single drives", scriptOf({ type: "stripe", groups: 4 })],
  ["an array", scriptOf({ keeper: "md", type: "5", stripeKib: 64 })],
  ["a pool with volumes", scriptOf({ volumes: [{ name: "v", bytes: 1e6 }, { name: "files" }] })],
  [
    "a pool with what stands beside its data",
    scriptOf({ type: "stripe", members: ["CB-01"], special: ["CB-02"], logs: ["CB-03"], caches: ["CB-04"] }),
  ],
  ["an array with thick volumes", onArray("thick")],
  ["an array with thin volumes", onArray("thin")],
  [
    "drives that may be erased",
    scriptOf({}, () => ({ contents: EXTFS }), consents("CB-01", "CB-02", "CB-03", "CB-04")),
  ],
];

describe("the script that makes a set", () => {
  it.each(SCRIPTS)("of %s is clean to the shell's checker", (_, script) => {
    const checked = spawnSync("shellcheck", ["--shell=sh", "-"], { input: script, encoding: "utf8" });
    expect([checked.error, checked.stdout]).toEqual([undefined, ""]);
    expect(checked.status).toBe(0);
  });

  it("gives every drive by its lasting name, in the order of the plan", () => {
    expect(standing().run(scriptOf({}))).toMatchObject({ code: 0, said: "" });
    expect(machine?.made("pool")).toEqual([
      ...["create", "-o", "ashift=12", "tank", "raidz1"],
      ...[1, 2, 3, 4].map((n) => `ata-Caldbeck_CB-0${n}`),
    ]);
  });

  it("makes groups, spares, and arrays as they are planned", () => {
    standing().run(scriptOf({ type: "mirror", groups: 1, members: ["CB-02", "CB-01"], spares: ["CB-03"] }));
    expect(machine?.made("pool")?.slice(4)).toEqual([
      "mirror",
      "ata-Caldbeck_CB-02",
      "ata-Caldbeck_CB-01",
      "spare",
      "ata-Caldbeck_CB-03",
    ]);
    machine?.run(
      scriptOf({ keeper: "md", type: "5", stripeKib: 64, name: "store" }).replaceAll("/etc/", "/nowhere/"),
    );
    expect(machine?.made("array")?.slice(0, 8)).toEqual([
      ...["--create", "/dev/md/store", "--run", "--name=store", "--metadata=1.2"],
      ...["--level=5", "--raid-devices=4", "--chunk=64"],
    ]);
  });

  it("puts special devices, logs and caches beside the data, mirrored where there are two", () => {
    standing().run(
      scriptOf({ type: "stripe", members: ["CB-01"], special: ["CB-02", "CB-03"], caches: ["CB-04"] }),
    );
    // The tool wants to be told twice where they are laid out otherwise than the data.
    expect(machine?.made("pool")?.slice(0, 5)).toEqual(["create", "-f", "-o", "ashift=12", "tank"]);
    expect(machine?.made("pool")?.slice(5)).toEqual([
      ...["ata-Caldbeck_CB-01", "special", "mirror", "ata-Caldbeck_CB-02", "ata-Caldbeck_CB-03"],
      ...["cache", "ata-Caldbeck_CB-04"],
    ]);
  });

  it("tells the tool nothing twice where special devices are laid out as the data are", () => {
    standing().run(scriptOf({ type: "mirror", members: ["CB-01", "CB-02"], special: ["CB-03", "CB-04"] }));
    expect(machine?.made("pool")?.slice(0, 4)).toEqual(["create", "-o", "ashift=12", "tank"]);
  });

  it("makes what stands on a set: whole blocks in a pool, whole extents on an array, the rest last", () => {
    standing().run(scriptOf({ volumes: [{ name: "v", bytes: 1e6, blockKib: 64 }, { name: "files" }] }));
    expect(machine?.made("volumes")?.slice(0, 2)).toEqual([
      `zfs create -b 65536 -V ${16 * 65536} tank/v`,
      "zfs create tank/files",
    ]);
    machine?.end();
    const large = Object.fromEntries([1, 2].map((n) => [n, { bytes: BYTES * 8 }]));
    const script = onArray("thick").replaceAll(CONF, "/dev/null");
    expect(standing(large).run(script)).toMatchObject({ code: 0, said: "" });
    expect(machine?.made("volumes")).toEqual([
      "pvcreate --yes /dev/md/store",
      "vgcreate store /dev/md/store",
      "lvcreate --yes --name a --extents 2 store",
      "lvcreate --yes --name rest --extents 100%FREE store",
      "mkfs.xfs /dev/store/rest",
    ]);
    expect(machine?.run(script)).toMatchObject({
      code: 1,
      said: expect.stringMatching(/group of this name is here/),
    });
    machine?.end();
    standing(large).run(onArray("thin").replaceAll(CONF, "/dev/null"));
    expect(machine?.made("volumes")?.slice(2, 5)).toEqual([
      "lvcreate --yes --type thin-pool --name thin --extents 100%FREE store",
      `lvcreate --yes --thin --name a --virtualsize ${8 * 2 ** 20}b store/thin`,
      "lvcreate --yes --thin --name rest --virtualsize 4096b store/thin",
    ]);
  });

  it("is not written while its volumes do not fit", () => {
    expect(() => scriptOf({ volumes: [{ name: "v", bytes: 1e12 }] })).toThrow(
      /cannot be created: its volumes use more/,
    );
  });

  it("does nothing when it is run again", () => {
    const script = scriptOf({});
    expect(standing().run(script).code).toBe(0);
    const again = machine?.run(script);
    expect(again).toMatchObject({
      code: 1,
      said: "STOP, nothing was written: a pool of this name is here already\n",
    });
  });

  it.each<[string, RegExp, Record<number, Partial<ScriptedDrive>>]>([
    [
      "a drive is absent",
      /no drive answers with the serial of bay 2, Caldbeck 12000/,
      { 2: { serial: "XX-9" } },
    ],
    [
      "a drive has another size",
      /has 67109376 bytes|has 1000000 bytes, and 67109376 are planned/,
      { 3: { bytes: 1e6 } },
    ],
    ["two drives answer with one serial", /two drives answer with the serial/, { 4: { serial: "CB-01" } }],
    ["a part of one is mounted", /is mounted/, { 1: { mounted: "/srv" } }],
    ["one belongs to something that runs", /belongs to something that runs/, { 1: { type: "lvm" } }],
  ])("stops before the first write where %s", (_, says, changes) => {
    const { code, said } = standing(changes).run(scriptOf({}));
    expect(said).toMatch(says);
    expect(said).toMatch(/^STOP, nothing was written: /);
    expect([code, machine?.made("pool")]).toEqual([1, null]);
  });

  it("stops at what the sheet knows nothing of, and takes away what somebody agreed to lose", () => {
    standing();
    expect(machine?.on("CB-02", "mkfs.ext4", "-q").status).toBe(0);
    const { code, said } = machine!.run(scriptOf({}));
    expect([code, said]).toEqual([1, expect.stringMatching(/stands what the sheet knows nothing of: ext4/)]);
    expect(machine?.on("CB-02", "wipefs", "--noheadings").stdout).toContain("ext4");
    const agreed = scriptOf({}, (i) => (i === 1 ? { contents: EXTFS } : {}), consents("CB-02"));
    expect(machine?.run(agreed)).toMatchObject({ code: 0, said: "" });
    expect(machine?.on("CB-02", "wipefs", "--noheadings").stdout).toBe("");
    expect(machine?.made("pool")).not.toBeNull();
  });

  it("refuses a drive of the list that must not be touched, whatever the sheet says of it elsewhere", () => {
    // As if the drive that the system stands on answered with the serial of a member: both lists hold it then.
    const script = scriptOf({}).replaceAll("'NV-0001'", "'CB-03'");
    expect(standing().run(script)).toMatchObject({
      code: 1,
      said: expect.stringMatching(/must not be touched/),
    });
    expect(machine?.made("pool")).toBeNull();
  });

  it.skipIf(!lendsLoops())("does the same on devices that the kernel makes of files", () => {
    standing({}, true);
    machine?.on("CB-01", "mkfs.ext4", "-q");
    const agreed = scriptOf({}, (i) => (i === 0 ? { contents: EXTFS } : {}), consents("CB-01"));
    expect(machine?.run(agreed)).toMatchObject({ code: 0, said: "" });
    expect(machine?.on("CB-01", "wipefs", "--noheadings").stdout).toBe("");
  });

  it.each<[string, object, (i: number) => Partial<Drive>, RegExp]>([
    ["nobody has agreed to what it erases", {}, () => ({ contents: EXTFS }), /erasure is not confirmed/],
    ["a drive has no serial", {}, () => ({ serial: null }), /without a serial/],
    ["its drives make no such set", { groups: 3 }, () => ({}), /cannot form 3 groups/],
    ["it has no name", { name: "" }, () => ({}), /it has no name/],
    ["a controller makes it", { keeper: "RAID controller", type: "5" }, () => ({}), /created manually/],
  ])("is not written where %s", (_, set, of, says) => expect(() => scriptOf(set, of)).toThrow(says));

  it("quotes whatever a drive calls itself", () => {
    const evil = `x'; touch "$HOME"; echo '`;
    const script = scriptOf({}, (i) => (i === 0 ? { serial: `${evil}`, model: "a\n$(reboot)" } : {}));
    const { code, said } = standing().run(script);
    expect([code, said]).toEqual([1, expect.stringMatching(/no drive answers/)]);
    const checked = spawnSync("shellcheck", ["--shell=sh", "-"], { input: script, encoding: "utf8" });
    // A quote inside a quoted word is what the checker wonders about; nothing of it is run.
    expect(checked.stdout).not.toMatch(/error/);
  });
});

describe("the first script of a kickstart file", () => {
  const SMALL = 10 * 2 ** 30;
  /** The script as the installer would run it, its file in a folder of the test. */
  function firstScript(to: string, more: Partial<Drive> = {}): string {
    const drive = aDrive("NV-0001", { sizeBytes: SMALL, ...more });
    const told = answerFileOf(
      aBuild({
        profile: shippedProfile("lowland-server-7"),
        drives: [drive, ...bulks(1, () => ({ sizeBytes: BYTES }))],
      }),
    );
    if (told.kind !== "file") throw new Error(JSON.stringify(told));
    const lines = textOf(told.file).split("\n");
    const script = lines.slice(lines.findIndex((l) => l.startsWith("%pre")) + 1, lines.lastIndexOf("%end"));
    return script.join("\n").replace("/tmp/derrick-storage.ks", to);
  }
  const here = (target: Partial<ScriptedDrive> = {}) =>
    (machine = scriptedMachine([
      { serial: "NV-0001", bytes: SMALL, ...target },
      { serial: "CB-01", bytes: BYTES },
    ]));

  it("is a sound script of the shell", () => {
    const said = spawnSync("shellcheck", ["-s", "sh", "-"], {
      input: `#!/bin/sh\n${firstScript("/tmp/x")}\n`,
      encoding: "utf8",
    });
    expect(said.error).toBeUndefined();
    expect(said.stdout).toBe("");
  });

  it("names the planned drive by its lasting name, with the parts that are made of it", () => {
    const to = join(mkdtempSync(join(tmpdir(), "derrick-ks-")), "storage.ks");
    const { code, said } = here().run(firstScript(to));
    expect([code, said]).toEqual([0, ""]);
    const written = readFileSync(to, "utf8");
    expect(written).toMatch(/^ignoredisk --only-use=\S+\/by-id\/ata-Caldbeck_NV-0001$/m);
    expect(written).toMatch(/^part \/boot --fstype=xfs --ondisk=\S+NV-0001 --size=1024$/m);
    expect(written).not.toContain("$disk");
  });

  it.each<[string, Partial<ScriptedDrive>, RegExp]>([
    ["is absent", { serial: "NV-0002" }, /no drive answers with the serial/],
    ["has another size", { bytes: SMALL + 512 }, /bytes, and \d+ are planned/],
    ["is in use", { mounted: "/mnt" }, /is mounted/],
  ])("stops before anything is written when the drive %s", (_, target, words) => {
    const to = join(mkdtempSync(join(tmpdir(), "derrick-ks-")), "storage.ks");
    const { code, said } = here(target).run(firstScript(to));
    expect(code).toBe(1);
    expect(said).toMatch(words);
    expect(existsSync(to)).toBe(false);
  });
});
