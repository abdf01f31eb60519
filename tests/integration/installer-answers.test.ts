import { spawnSync } from "node:child_process";
import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { beforeEach, describe, expect, it } from "vitest";
import { answerFileOf, textOf } from "@/core/answers";
import { hostPlan, writeIfupdown } from "@/core/network";
import { aBuild, aDrive, shippedProfile, type BuildChanges } from "../support/builds";

// What Derrick writes in the small system of a real installer: its shell, and the programs that keep its answers.
// `node scripts/installer-root.mjs` fetches it.

const ROOT = ".derrick/installer/root";
const BYTES = 480_103_981_056;
/** Critical questions that stop an installation which nobody watches, each with one line of a dialogue that asks it. */
const ASKED = [
  "partman-partitioning/confirm_write_new_label",
  "partman/choose_partition",
  "partman/confirm",
  "partman/confirm_nooverwrite",
  "partman-lvm/device_remove_lvm",
  "partman-lvm/device_remove_lvm_span",
  "partman-md/device_remove_md",
  "finish-install/reboot_in_progress",
];
/** How its dialogue answers to a question: as one that would be shown, or one that is passed over. */
const [SHOWN, PASSED_OVER] = ["0", "30"];

const inside = (script: string, env: Record<string, string> = {}) =>
  spawnSync("chroot", [ROOT, "/bin/sh", "-c", script], {
    encoding: "utf8",
    env: {
      NODE_ENV: "test",
      PATH: "/usr/sbin:/usr/bin:/sbin:/bin",
      DEBIAN_FRONTEND: "text",
      DEBCONF_PRIORITY: "critical",
      ...env,
    },
  });

/** Its answers as they are when it starts, with the questions of parts that are loaded later. */
beforeEach(() => {
  for (const file of ["questions.dat", "passwords.dat", "templates.dat"])
    rmSync(join(ROOT, "var/lib/cdebconf", file), { force: true });
  const templates = ASKED.map(
    (question) => `Template: ${question}\nType: boolean\nDefault: false\nDescription: ${question}\n`,
  );
  writeFileSync(join(ROOT, "tmp/late.templates"), templates.join("\n"));
  if (!existsSync(join(ROOT, "dev/null")))
    spawnSync("mknod", ["-m", "666", join(ROOT, "dev/null"), "c", "1", "3"]);
  const loaded = inside(
    "for t in /var/lib/dpkg/info/*.templates /tmp/late.templates; do debconf-loadtemplate d-i $t; done",
  );
  expect([loaded.status, loaded.stderr]).toEqual([0, ""]);
});

/** Its sysfs and udev with one drive; the udev database of a chroot is empty. */
function withDrive(serial: string): Record<string, string> {
  mkdirSync(join(ROOT, "tmp/sys/block/sdb"), { recursive: true });
  mkdirSync(join(ROOT, "tmp/bin"), { recursive: true });
  writeFileSync(join(ROOT, "tmp/sys/block/sdb/size"), `${BYTES / 512}\n`);
  writeFileSync(join(ROOT, "tmp/mounts"), "");
  writeFileSync(join(ROOT, "tmp/bin/udevadm"), `#!/bin/sh\necho ID_SCSI_SERIAL=${serial}\n`, { mode: 0o755 });
  return { SYS: "/tmp/sys", MOUNTS: "/tmp/mounts", PATH: "/tmp/bin:/usr/sbin:/usr/bin:/sbin:/bin" };
}

/** Loads a preseed file as the installer does, runs its early command, and tells which of the questions it would still show. */
function stillAsked(
  changes: BuildChanges,
  serial = "NV-0001",
): { status: number | null; said: string; shown: string[] } {
  const told = answerFileOf(aBuild({ profile: shippedProfile("millrace-12"), ...changes }), undefined, true);
  const text = told.kind === "file" ? textOf(told.file) : "";
  writeFileSync(join(ROOT, "tmp/preseed"), text);
  expect(inside("debconf-set-selections /tmp/preseed").status).toBe(0);
  // As it is read out of the store, which has been written and read again since.
  const command = inside("debconf-get partman/early_command").stdout;
  const { status, stderr } = inside(command, withDrive(serial));
  const dialogue = ASKED.map((q) => `db_input critical ${q}; echo "$? ${q}" >> /tmp/asked`);
  writeFileSync(join(ROOT, "tmp/dialogue"), [". /usr/share/debconf/confmodule", ...dialogue].join("\n"));
  rmSync(join(ROOT, "tmp/asked"), { force: true });
  inside("debconf -o d-i /bin/sh /tmp/dialogue");
  const answers = readFileSync(join(ROOT, "tmp/asked"), "utf8").trim().split("\n");
  expect(answers).toHaveLength(ASKED.length);
  expect(answers.filter((a) => ![SHOWN, PASSED_OVER].includes(a.split(" ")[0]!))).toEqual([]);
  return {
    status,
    said: stderr,
    shown: answers.flatMap((a) => (a.startsWith(`${SHOWN} `) ? [a.slice(2)] : [])),
  };
}

describe("the answers of a real installer", () => {
  const REMOVES = [
    "partman-lvm/device_remove_lvm",
    "partman-lvm/device_remove_lvm_span",
    "partman-md/device_remove_md",
  ];
  const contents = [{ part: "p1", sizeBytes: 9, kind: "LVM2_member", label: null, mountedAt: [] }];
  const agreed = {
    drive: "NV-0001",
    typed: "NV-0001",
    holds: "LVM2_member",
    by: "J. Pell",
    at: "2026-11-20T08:00:00Z",
  };

  it("are marked as seen once the planned drive was found, so that no question stops it", () => {
    expect(stillAsked({})).toEqual({ status: 0, said: "", shown: REMOVES });
    const got = inside(
      "for q in partman-auto/disk grub-installer/bootdev partman-auto/method partman/choose_partition; do debconf-get $q; done",
    );
    expect(got.stdout.trim().split("\n")).toEqual(["/dev/sdb", "/dev/sdb", "regular", "finish"]);
    expect(existsSync(join(ROOT, "tmp/derrick.answers"))).toBe(false);
  });

  it("let it take a volume group of one drive apart where its erasing was agreed to", () => {
    const { status, shown } = stillAsked({
      drives: [aDrive("NV-0001", { contents })],
      sheet: { "storage.erase": [agreed] },
    });
    expect([status, shown]).toEqual([0, ["partman-lvm/device_remove_lvm_span"]]);
  });

  it("leave it the whole network of the plan, which it copies to the new system", () => {
    const macs = ["02:61:0a:00:00:14", "02:61:0a:00:00:15"];
    const ports = macs.map((mac, i) => ({ mac, seenAs: `eno${i + 1}`, kind: "ethernet", link: "up" }));
    const bond = { id: "1", kind: "bond", name: "bond0", on: macs, mode: "802.3ad", mtu: 9000 };
    const changes = {
      facts: { ports } as never,
      sheet: { "network.interfaces": [bond], "network.carrier": "bond0" },
    };
    expect(stillAsked(changes).status).toBe(0);
    const kept = readFileSync(join(ROOT, "etc/network/interfaces"), "utf8");
    const plan = hostPlan(aBuild({ profile: shippedProfile("millrace-12"), ...changes }), {
      hostName: "wrk-hv1",
      domain: "marrowby.example",
    });
    const wanted = plan.ok ? writeIfupdown(plan.value).files : [];
    expect(kept).toBe(wanted.find(({ path }) => path === "/etc/network/interfaces")?.text);
    expect(kept).toMatch(/bond-slaves eno1 eno2\n[^]*mtu 9000/);
  });

  it("keep a backslash before an n, of which its store makes the end of a line when it is read again", () => {
    const finish = [
      "printf '%s\\n' 'a\\nb' \"c\\n\" > /tmp/finished",
      "sed -n 's/\\(b\\)/\\1\\n/p' /tmp/finished > /tmp/cut",
    ];
    expect(stillAsked({ sheet: { "answers.finish": finish } }).status).toBe(0);
    const late = inside("debconf-get preseed/late_command").stdout.replace(/^in-target /, "");
    expect(inside(late)).toMatchObject({ status: 0, stderr: "" });
    expect(readFileSync(join(ROOT, "tmp/finished"), "utf8")).toBe("a\\nb\nc\\n\n");
    expect(readFileSync(join(ROOT, "tmp/cut"), "utf8")).toBe("a\\nb\n\n");
  });

  it("let it ask everything that writes where the drive is another one", () => {
    const { status, said, shown } = stillAsked({}, "NV-0002");
    expect([status, said]).toEqual([1, "derrick: no drive has the planned serial number\n"]);
    expect(shown).toEqual(ASKED.filter((q) => q !== "finish-install/reboot_in_progress"));
  });
});
