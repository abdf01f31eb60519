import { spawnSync } from "node:child_process";
import { chmodSync, existsSync, mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, describe, expect, it } from "vitest";
import { parse } from "yaml";
import { answerFileOf, textOf } from "@/core/answers";
import type { Drive } from "@/core/machine";
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
  }
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
      `for last; do :; done; case $last in ${cases((d) => `ID_SERIAL_SHORT=${d.serial}`)} esac`,
    );
    stub(
      "blkid",
      `case $1 in ${drives
        .filter((d) => d.holds)
        .map((d) => `/dev/${d.name}*) echo "TYPE=${d.holds}" ;;`)
        .join(" ")} esac`,
    );
    stub("debconf-set", `printf '%s %s\\n' "$1" "$2" >>"${root}/answers"`);
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
    expect(answers.slice(0, 2)).toEqual(["partman-auto/disk /dev/sdb", "grub-installer/bootdev /dev/sdb"]);
    expect(answers).toContain("partman/confirm true");
  });

  it.each<[string, Block[], string, RegExp]>([
    ["is absent", [other], "", /no drive answers/],
    ["is there twice", [target, { ...target, name: "sdb" }], "", /two drives answer/],
    ["has another size", [{ ...target, bytes: BYTES + 512 }], "", /another size/],
    ["is mounted", [target], "/dev/nvme0n1p1 /cdrom iso9660 ro 0 0\n", /is in use/],
    ["holds what nobody knew of", [{ ...target, holds: "ext4" }], "", /knows nothing of/],
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
      expect([serial, status, answers[0]]).toEqual([serial, 0, "partman-auto/disk /dev/nvme0n1"]);
    }
    expect(existsSync("x")).toBe(false);
  });
});

it("the first command of user data is a sound script, and a file of every family with one is written", () => {
  for (const [profile, marks] of [
    ["saddler-linux-24", /^#cloud-config$/m],
    ["millrace-12", /^#_preseed_V1$/m],
    ["lowland-server-7", /^%pre /m],
  ] as const) {
    const told = answerFileOf(aBuild({ profile: shippedProfile(profile) }));
    if (told.kind !== "file") throw new Error(JSON.stringify(told));
    const text = textOf(told.file);
    expect(text).toMatch(marks);
    // The same bytes for the same sheet.
    const again = answerFileOf(aBuild({ profile: shippedProfile(profile) }));
    expect(again.kind === "file" && textOf(again.file)).toBe(text);
    if (!profile.startsWith("saddler")) continue;
    const [command] = (parse(text) as { autoinstall: { "early-commands": string[] } }).autoinstall[
      "early-commands"
    ];
    const said = spawnSync("shellcheck", ["-s", "sh", "-"], {
      input: `#!/bin/sh\n${command}`,
      encoding: "utf8",
    });
    expect([said.error, said.stdout]).toEqual([undefined, ""]);
  }
});
