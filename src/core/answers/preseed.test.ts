import { describe, expect, it } from "vitest";
import { aBuild, aDrive, shippedProfile, type BuildChanges } from "../../../tests/support/builds";
import { withSet } from "../../../tests/support/firing-sets";
import { answerFileOf, lintPreseed, PRESEED_RULES, textOf, type PreseedRule } from ".";

const MILLRACE = shippedProfile("millrace-12");
const told = (changes: BuildChanges = {}) => answerFileOf(aBuild({ profile: MILLRACE, ...changes }));
function fileOf(changes: BuildChanges = {}) {
  const answer = told(changes);
  if (answer.kind !== "file") throw new Error(JSON.stringify(answer));
  return { ...answer.file, text: textOf(answer.file) };
}
const valueOf = (text: string, question: string): string | undefined =>
  new RegExp(`^d-i ${question} \\S+ (.*)$`, "m").exec(text)?.[1];

describe("a preseed file", () => {
  it("answers what the sheet has decided, each line with its field", () => {
    const { text, lines, name } = fileOf();
    expect(name).toBe("wrk-hv1.preseed");
    for (const [line, from] of [
      ["d-i debian-installer/locale string en_GB.UTF-8", "answers.locale"],
      ["d-i keyboard-configuration/xkb-keymap select gb", "answers.keyboard"],
      ["d-i netcfg/choose_interface select eno1", "network.port"],
      ["d-i netcfg/get_ipaddress string 10.61.10.20", "network.address"],
      ["d-i netcfg/get_netmask string 255.255.255.0", "network.address"],
      ["d-i netcfg/hostname string wrk-hv1", "answers.hostName"],
      ["d-i time/zone string Europe/London", "answers.timeZone"],
      ["d-i passwd/root-login boolean true", "answers.accounts"],
    ])
      expect(lines, line).toContainEqual({ text: line, from });
    expect(lintPreseed(text)).toEqual([]);
  });

  it("makes the parts of zone D, in megabytes, the last one with all that is left", () => {
    expect(valueOf(fileOf().text, "partman-auto/expert_recipe")).toBe(
      "derrick :: 537 537 537 free $iflabel{ gpt } method{ efi } format{ } . 1024 1024 1024 linux-swap method{ swap } format{ } . 1000 1000000 -1 ext4 method{ format } format{ } use_filesystem{ } filesystem{ ext4 } mountpoint{ / } .",
    );
  });

  it("makes primary parts in legacy mode, the root active: boot code starts no other", () => {
    const legacy = valueOf(fileOf({ sheet: { "boot.mode": "legacy" } }).text, "partman-auto/expert_recipe");
    expect(legacy).toBe(
      "derrick :: 1024 1024 1024 linux-swap $primary{ } method{ swap } format{ } . 1000 1000000 -1 ext4 $primary{ } $bootable{ } method{ format } format{ } use_filesystem{ } filesystem{ ext4 } mountpoint{ / } .",
    );
  });

  it("takes a volume group or an array apart only where erasing was agreed to, and answers no group of several drives", () => {
    const asked = (drive: BuildChanges) =>
      valueOf(fileOf(drive).text, "partman/early_command")!.match(/device_remove\w+/g);
    expect(asked({})).toBeNull();
    const contents = [{ part: "p1", sizeBytes: 9, kind: "LVM2_member", label: null, mountedAt: [] }];
    const erase = [
      { drive: "NV-0001", typed: "NV-0001", holds: "LVM2_member", by: "J. Pell", at: "2026-11-20T08:00:00Z" },
    ];
    const agreed = { drives: [aDrive("NV-0001", { contents })], sheet: { "storage.erase": erase } };
    expect(asked(agreed)).toEqual(["device_remove_lvm", "device_remove_md"]);
  });

  it("ends without a key pressed where nobody stands before it, and a failing command at its end is told", () => {
    const armed = answerFileOf(
      aBuild({ profile: shippedProfile("millrace-12"), sheet: { "answers.finish": ["false"] } }),
      undefined,
      true,
    );
    const text = armed.kind === "file" ? textOf(armed.file) : "";
    expect(text).toMatch(/^d-i finish-install\/reboot_in_progress note$/m);
    expect(lintPreseed(text)).toEqual([]);
    expect(fileOf().text).not.toContain("reboot_in_progress");
    expect(valueOf(text, "preseed/late_command")).toMatch(/^in-target sh -c 'set -e; /);
  });

  it("lets the installer write only from within the command that has found the drive", () => {
    const { text } = fileOf();
    const command = valueOf(text, "partman/early_command")!;
    for (const question of ["partman/confirm", "partman-auto/method", "partman-auto/disk"]) {
      expect(valueOf(text, question)).toBeUndefined();
      expect(command).toContain(`d-i ${question} `);
    }
    const loads = command.indexOf("debconf-set-selections");
    expect(command.slice(0, loads).match(/exit 1/g)).toHaveLength(5);
    expect(command.slice(loads)).toContain("answers could not be loaded");
  });

  it("makes one account beside the super-user, and tells the others as work by hand", () => {
    const accounts = [
      { name: "jpell", role: "administrator", logIn: "password" },
      { name: "arkle", role: "administrator", logIn: "key" },
    ];
    const { text, byHand } = fileOf({ sheet: { "answers.accounts": accounts } });
    expect(valueOf(text, "passwd/root-login")).toBe("false");
    expect(valueOf(text, "passwd/username")).toBe("jpell");
    const words = byHand.map((g) => g.message).join("\n");
    expect(words).toMatch(/set the password of jpell on the screen of the installer/);
    expect(words).toMatch(/arkle is created locked: it has no public key/);
    expect(text).not.toMatch(/crypted/);
  });

  it("brings a bond that carries the address and an MTU with it, and tells what it leaves out", () => {
    const second = "02:61:0a:00:00:15";
    const ports = ["02:61:0a:00:00:14", second].map((mac, i) => ({
      ...{ mac, seenAs: `eno${i + 1}`, kind: "ethernet", link: "up" },
    }));
    const words = (changes: BuildChanges) =>
      fileOf(changes)
        .byHand.map((g) => g.message)
        .join("\n");
    const bond = {
      ...{ id: "1", kind: "bond", name: "bond0", on: ports.map((p) => p.mac), mode: "802.3ad", mtu: 9000 },
    };
    const bonded = {
      facts: { ports } as never,
      sheet: { "network.interfaces": [bond], "network.carrier": "bond0" },
    };
    // A family that reads no file of interfaces gets them by hand.
    const other = { profile: { ...MILLRACE, network: { ...MILLRACE.network, files: [] } } };
    expect(words({ ...bonded, ...other })).toMatch(/the bond bond0 is created at the first boot/);
    const port = { id: "1", kind: "port", name: "eno1", on: ["02:61:0a:00:00:14"], mtu: 9000 };
    const jumbo = { sheet: { "network.interfaces": [port] } };
    expect(words({ ...jumbo, ...other })).toMatch(/the MTU 9000 of eno1/);
    for (const changes of [bonded, jumbo]) {
      const { text, byHand } = fileOf(changes);
      expect(byHand.filter((g) => g.path === "network.interfaces")).toEqual([]);
      expect(valueOf(text, "partman/early_command")).toMatch(/^mkdir -p \/etc\/network && printf /);
      expect(valueOf(text, "preseed/late_command")).toContain("nameserver 10.61.10.");
      expect(lintPreseed(text)).toEqual([]);
    }
    expect(valueOf(fileOf(bonded).text, "pkgsel/include")).toBe("ifenslave");
    expect(words(withSet({}))).toMatch(
      /arrays and virtual drives on other drives are created by their own scripts/,
    );
  });

  it("is none where the recipe has no words for a part", () => {
    const answer = told({ profile: shippedProfile("hopper-backup-3") });
    expect(answer).toMatchObject({ kind: "open", gaps: [{ path: "storage.target" }] });
    expect(JSON.stringify(answer)).toContain("store");
  });

  it("is none while nobody has agreed that the drive is erased", () => {
    const drives = [aDrive("NV-0001", { contents: null })];
    expect(told({ drives })).toMatchObject({ kind: "open", gaps: [{ path: "storage.erase" }] });
  });
});

describe("the linter", () => {
  const { text } = fileOf();
  const cases: Record<PreseedRule, string> = {
    line: text.trimEnd(),
    shape: `${text}d-i netcfg/get_domain\n`,
    question: text.replace("time/zone", "time/zones"),
    type: text.replace("time/zone string", "time/zone select"),
    boolean: text.replace("clock-setup/utc boolean true", "clock-setup/utc boolean yes"),
    twice: `${text}d-i time/zone string Europe/London\n`,
    missing: text.replace(/^d-i time\/zone.*\n/m, ""),
    letter: `${text}d-i grub-installer/bootdev string /dev/sda\n`,
    unasked: `${text}d-i partman/confirm boolean true\n`,
    recipe: text.replace("mountpoint{ / } .", "mountpoint{ / }"),
  };
  it.each(Object.keys(PRESEED_RULES) as PreseedRule[])("%s", (rule) => {
    expect(cases[rule]).not.toBe(text);
    expect(lintPreseed(cases[rule]).map((f) => f.rule)).toContain(rule);
    expect(PRESEED_RULES[rule]).not.toBe("");
  });
});
