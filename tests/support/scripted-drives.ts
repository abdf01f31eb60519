import { spawnSync } from "node:child_process";
import {
  chmodSync,
  closeSync,
  existsSync,
  ftruncateSync,
  mkdirSync,
  mkdtempSync,
  openSync,
  readFileSync,
  rmSync,
  symlinkSync,
  writeFileSync,
} from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";

/** A drive of the little machine: a sparse file, with what the system would say of it. */
export interface ScriptedDrive {
  serial: string;
  bytes: number;
  mounted?: string;
  type?: "disk" | "lvm";
}

/**
 * A folder that stands for a machine: sparse files as drives, links to them as lasting names, and stand-ins for the
 * programs that need real drives (`lsblk` tells what the drives are, `zpool` and `mdadm` keep what they were given).
 */
export function scriptedMachine(drives: readonly ScriptedDrive[], loops = false) {
  const root = mkdtempSync(join(tmpdir(), "derrick-drives-"));
  const [bin, byId] = [join(root, "bin"), join(root, "by-id")];
  [bin, byId, join(root, "dev"), join(root, "made")].forEach((d) => mkdirSync(d));
  const attached: string[] = [];
  const pathOf = new Map<string, string>();
  drives.forEach(({ serial, bytes, mounted = "", type = "disk" }, i) => {
    const file = join(root, "dev", `drive${i}`);
    const fd = openSync(file, "w");
    ftruncateSync(fd, bytes);
    closeSync(fd);
    let path = file;
    if (loops) {
      path = spawnSync("losetup", ["-f", "--show", file], { encoding: "utf8" }).stdout.trim();
      attached.push(path);
    }
    pathOf.set(serial, path);
    // By two names, as a system gives them, and one of a part.
    const twin = drives.findIndex((d) => d.serial === serial) < i ? `_${i}` : "";
    for (const name of [`ata-Caldbeck_${serial}${twin}`, `wwn-${i}`, `wwn-${i}-part1`])
      symlinkSync(path, join(byId, name));
    writeFileSync(join(root, `${path.replaceAll("/", "_")}.told`), `${serial}\n${mounted}\n${type}\n`);
  });
  const stub = (name: string, text: string): void => {
    writeFileSync(join(bin, name), `#!/bin/sh\n${text}\n`);
    chmodSync(join(bin, name), 0o755);
  };
  stub(
    "lsblk",
    `for last; do :; done
path=$(readlink -f -- "$last"); told="${root}/$(printf %s "$path" | tr / _).told"
case $* in
  *SERIAL*) sed -n 1p "$told" ;;
  *MOUNTPOINT*) sed -n 2p "$told" ;;
  *TYPE*) sed -n 3p "$told" ;;
  *NAME*) printf '%s\\n' "$path" ;;
esac`,
  );
  if (!loops)
    stub(
      "blockdev",
      'case $1 in --getsize64) for last; do :; done; stat -Lc %s -- "$last" ;; *) exit 1 ;; esac',
    );
  stub("id", "echo 0");
  stub(
    "zpool",
    `case $1 in list) [ -e "${root}/made/pool" ] ;; create) printf '%s\\n' "$@" >"${root}/made/pool" ;; esac`,
  );
  // Each call of what is made on a set is a line.
  for (const name of ["zfs", "pvcreate", "vgcreate", "lvcreate", "mkfs.xfs"])
    stub(name, `printf '%s\\n' "${name} $*" >>"${root}/made/volumes"`);
  stub("vgs", `grep -qs "^vgcreate $1 " "${root}/made/volumes"`);
  stub("lvs", "echo 4096");
  stub("mdadm", `case $1 in --create) printf '%s\\n' "$@" >"${root}/made/array" ;; esac`);
  return {
    stub,
    /** Runs a script as the system's own shell does. */
    run(script: string) {
      const done = spawnSync("sh", ["-s"], {
        ...{ input: script, encoding: "utf8" as const },
        env: { ...process.env, PATH: `${bin}:${process.env.PATH}`, BY_ID: byId },
      });
      return { code: done.status, said: done.stderr, out: done.stdout };
    },
    /** What a stand-in was given to make; drives by their serials. Null while it made nothing. */
    made(what: "pool" | "array" | "volumes"): string[] | null {
      const file = join(root, "made", what);
      if (!existsSync(file)) return null;
      const words = readFileSync(file, "utf8").trimEnd().split("\n");
      return words.map((w) => (w.startsWith(byId) ? w.slice(byId.length + 1) : w));
    },
    /** Runs a program on a drive. */
    on: (serial: string, program: string, ...args: string[]) =>
      spawnSync(program, [...args, pathOf.get(serial)!], { encoding: "utf8" }),
    end(): void {
      for (const path of attached) spawnSync("losetup", ["-d", path]);
      rmSync(root, { recursive: true, force: true });
    },
  };
}

/** Whether this machine lends loop devices. */
export function lendsLoops(): boolean {
  const m = scriptedMachine([{ serial: "TRY", bytes: 2 ** 20 }], true);
  const size = m.on("TRY", "blockdev", "--getsize64");
  m.end();
  return size.status === 0 && size.stdout.trim() === String(2 ** 20);
}
