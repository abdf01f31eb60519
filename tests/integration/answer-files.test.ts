import { spawnSync } from "node:child_process";
import { chmodSync, existsSync, mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, describe, expect, it } from "vitest";
import { parse } from "yaml";
import { answerFileOf, textOf } from "@/core/answers";
import type { Drive } from "@/core/machine";
import { scriptedMachine } from "../support/scripted-drives";
import { aBuild, aDrive, shippedProfile, type BuildChanges } from "../support/builds";

// Answer files before the programs that read them.

const folder = mkdtempSync(join(tmpdir(), "derrick-answers-"));
afterAll(() => rmSync(folder, { recursive: true, force: true }));
const BYTES = 480_103_981_056;

function preseed(changes: BuildChanges = {}): string {
  const told = answerFileOf(aBuild({ profile: shippedProfile("millrace-12"), ...changes }));
  if (told.kind !== "file") throw new Error(JSON.stringify(told));
  return textOf(told.file);
}
const commandOf = (text: string): string => /^d-i partman\/early_command string (.*)$/m.exec(text)![1]!;

it("a preseed file is taken by debconf without a word", () => {
  const file = join(folder, "a.preseed");
  const software = {
    ...{ "answers.source": "https://mirror.works.example/os", "answers.proxy": "http://10.61.10.8:3128" },
    ...{ "answers.components": ["@standard", "tmux"], "answers.services": ["chrony"] },
  };
  for (const sheet of [{}, { "boot.mode": "legacy" }, software]) {
    writeFileSync(file, preseed({ sheet }));
    const said = spawnSync("debconf-set-selections", ["--checkonly", file], { encoding: "utf8" });
    expect([said.error, said.status, said.stdout, said.stderr]).toEqual([undefined, 0, "", ""]);
  }
});

describe("the command that finds the drive", () => {
  interface Block {
    name: string;
    serial: string;
    bytes: number;
    holds?: string;
    on?: keyof typeof SAYS;
  }
  /** What udev says of drives by what they are attached to (read off an emulated PC with each of them). */
  const SAYS = {
    sata: (s: string) => `ID_SERIAL=Caldbeck_${s}\nID_SERIAL_SHORT=${s}`,
    nvme: (s: string) => `ID_SERIAL_SHORT=${s}\nID_SERIAL=Caldbeck_${s}_1`,
    "scsi without a name": (s: string) => `ID_SERIAL=0Caldbeck_${s}\nID_SERIAL_SHORT=${s}`,
    "sas with a name": (s: string) =>
      `ID_SERIAL=35000c500a1b2c3d4\nID_SERIAL_SHORT=5000c500a1b2c3d4\nID_SCSI_SERIAL=${s}`,
    "virtio-blk": (s: string) => `ID_SERIAL=${s}`,
    "no serial": () => "DEVTYPE=disk",
  };
  let count = 0;

  /** The small system of an installer: drives in its sysfs, and the programs that the command calls. */
  function installer(drives: readonly Block[], mounts = "") {
    const root = join(folder, `system-${(count += 1)}`);
    const bin = join(root, "bin");
    mkdirSync(bin, { recursive: true });
    const stub = (name: string, body: string): void => {
      writeFileSync(join(bin, name), `#!/bin/sh\n${body}\n`);
      chmodSync(join(bin, name), 0o755);
    };
    for (const { name, bytes } of drives) {
      mkdirSync(join(root, "sys/block", name), { recursive: true });
      writeFileSync(join(root, "sys/block", name, "size"), `${bytes / 512}\n`);
    }
    const cases = (of: (d: Block) => string) =>
      drives.map((d) => `*/${d.name}) echo "${of(d)}" ;;`).join(" ");
    stub(
      "udevadm",
      `for last; do :; done; case $last in ${cases((d) => SAYS[d.on ?? "nvme"](d.serial))} esac`,
    );
    stub(
      "blkid",
      `case $1 in ${drives
        .filter((d) => d.holds)
        .map((d) => `/dev/${d.name}*) echo "TYPE=${d.holds}" ;;`)
        .join(" ")} esac`,
    );
    stub("debconf-set-selections", `cat "$1" >>"${root}/answers"`);
    writeFileSync(join(root, "mounts"), mounts);
    return {
      run(command: string) {
        const env = {
          ...process.env,
          PATH: `${bin}:${process.env.PATH}`,
          SYS: join(root, "sys"),
          MOUNTS: join(root, "mounts"),
        };
        const { status, stderr } = spawnSync("sh", ["-c", command], { encoding: "utf8", env });
        const answers = join(root, "answers");
        return {
          status,
          said: stderr,
          answers: existsSync(answers) ? readFileSync(answers, "utf8").trim().split("\n") : [],
        };
      },
    };
  }
  const target = { name: "nvme0n1", serial: "NV-0001", bytes: BYTES };
  const other = { name: "sda", serial: "CB-01", bytes: 12e9 };
  const command = commandOf(preseed());

  it("is a sound line of the shell", () => {
    const said = spawnSync("shellcheck", ["-s", "sh", "-"], {
      input: `#!/bin/sh\n${command}\n`,
      encoding: "utf8",
    });
    expect([said.error, said.stdout]).toEqual([undefined, ""]);
  });

  it("names the planned drive, whatever its letter is today, and only then lets the installer write", () => {
    const { status, said, answers } = installer([other, { ...target, name: "sdb" }]).run(command);
    expect([status, said]).toEqual([0, ""]);
    expect(answers.slice(0, 2)).toEqual([
      "d-i partman-auto/disk string /dev/sdb",
      "d-i grub-installer/bootdev string /dev/sdb",
    ]);
    expect(answers).toContain("d-i partman/confirm boolean true");
  });

  it.each(["sata", "nvme", "scsi without a name", "sas with a name", "virtio-blk"] as const)(
    "finds a drive by the serial that lsblk shows, on %s",
    (on) => {
      const system = installer([
        other,
        { name: "vda", serial: "", bytes: BYTES, on: "no serial" },
        { ...target, on },
      ]);
      expect(system.run(command).answers[0]).toBe("d-i partman-auto/disk string /dev/nvme0n1");
    },
  );

  it("takes no drive by its world wide name", () => {
    const named = { ...target, serial: "CB-77", on: "sas with a name" as const };
    const wanted = commandOf(preseed({ drives: [aDrive("NV-0001", { serial: "5000c500a1b2c3d4" })] }));
    expect(installer([named]).run(wanted)).toMatchObject({ status: 1, answers: [] });
  });

  it.each<[string, Block[], string, RegExp]>([
    ["is absent", [other], "", /no drive has the planned serial number/],
    ["is there twice", [target, { ...target, name: "sdb" }], "", /two drives have the planned serial number/],
    ["has another size", [{ ...target, bytes: BYTES + 512 }], "", /another size/],
    ["is mounted", [target], "/dev/nvme0n1p1 /cdrom iso9660 ro 0 0\n", /is in use/],
    [
      "holds what nobody knew of",
      [{ ...target, holds: "ext4" }],
      "",
      /contents that the sheet does not know/,
    ],
  ])("lets it write nothing where the drive %s", (_, drives, mounts, words) => {
    const { status, said, answers } = installer(drives, mounts).run(command);
    expect([status, answers]).toEqual([1, []]);
    expect(said).toMatch(words);
  });

  it("finds a serial of any signs, and takes none for a command", () => {
    for (const serial of ["A;touch x", "$(touch x)", "it's", 'a"b', "`id`", "a*b", "-n"]) {
      const drive: Partial<Drive> = { serial };
      const text = preseed({ drives: [aDrive("NV-0001", drive)] });
      const bare = serial.replace(/\s/g, "");
      const quoted = bare.replace(/["\\$`]/g, String.raw`\$&`);
      const { status, answers } = installer([{ ...target, serial: quoted }]).run(commandOf(text));
      expect([serial, status, answers[0]]).toEqual([serial, 0, "d-i partman-auto/disk string /dev/nvme0n1"]);
    }
    expect(existsSync("x")).toBe(false);
  });
});

describe("the first command of user data", () => {
  const commandIn = (text: string): string =>
    (parse(text) as { autoinstall: { "early-commands": string[] } }).autoinstall["early-commands"][0]!;
  const userData = () => {
    const told = answerFileOf(aBuild({ profile: shippedProfile("saddler-linux-24") }));
    return told.kind === "file" ? textOf(told.file) : "";
  };
  const SAS = "ID_SERIAL=35000c500a1b2c3d4\nID_SCSI_SERIAL=NV-0001";

  /** Runs it on a machine whose udev tells that of the target and of one other drive; what the installer reads then. */
  function after(says: string, other: string, quote: '"' | "'") {
    const drives = [{ serial: "NV-0001", bytes: BYTES }];
    const machine = scriptedMachine(drives);
    const file = join(folder, `autoinstall-${quote === "'" ? 1 : 2}.yaml`);
    writeFileSync(
      file,
      `storage:\n  config:\n  - match:\n      serial: ${quote}*NV-0001${quote}\n    type: disk\n`,
    );
    const sys = join(folder, "sys-of-two");
    for (const name of ["sda", "sdb"]) mkdirSync(join(sys, "block", name), { recursive: true });
    machine.stub(
      "udevadm",
      `for last; do :; done; case $last in *=/dev/sdb) printf '%s\\n' '${other}' ;; *) printf '%s\\n' '${says}' ;; esac`,
    );
    const done = machine.run(`SYS=${sys} AUTOINSTALL=${file}\n${commandIn(userData())}`);
    machine.end();
    return {
      ...done,
      serial: (parse(readFileSync(file, "utf8")) as Autoinstall).storage.config[0]!.match.serial,
    };
  }
  interface Autoinstall {
    storage: { config: { match: { serial: unknown } }[] };
  }

  it.each(["'", '"'] as const)(
    "puts the name in the file by which udev knows the drive, quoted by %s",
    (quote) => {
      expect(after(SAS, "ID_SERIAL=Caldbeck_CB-77", quote)).toMatchObject({
        code: 0,
        serial: "*35000c500a1b2c3d4",
      });
    },
  );

  it.each([
    ["udev has no name for it", "DEVTYPE=disk", "", /udev has no name/],
    ["another drive would fit as well", SAS, "ID_SERIAL=135000c500a1b2c3d4", /2 drives have a name/],
    ["its name would fit several", "ID_SERIAL=a*b", "", /udev has no name/],
  ])("ends, and names no drive, where %s", (_, says, other, words) => {
    const { code, said, serial } = after(says, other, "'");
    expect([code, serial]).toEqual([1, "*NV-0001"]);
    expect(said).toMatch(words);
  });

  it("is a sound script, and the same bytes for the same sheet", () => {
    const input = `#!/bin/sh\n${commandIn(userData())}`;
    const said = spawnSync("shellcheck", ["-s", "sh", "-"], { input, encoding: "utf8" });
    expect([said.error, said.stdout]).toEqual([undefined, ""]);
    expect(userData()).toBe(userData());
  });
});
