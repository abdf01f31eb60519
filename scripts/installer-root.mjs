// Fetches Debian's own installer into .derrick/installer, for tests that give it Derrick's files: its kernel, its initial file
// system, and that unpacked as a root. Nothing of it is installed; it does nothing when it is there.
import { spawnSync } from "node:child_process";
import { existsSync, mkdirSync, writeFileSync } from "node:fs";
import { join, resolve } from "node:path";
import { fileURLToPath } from "node:url";
import { installDebian, root } from "./setup.mjs";

export const installer = resolve(root, ".derrick/installer");
const own = fileURLToPath(import.meta.url);
const PACKAGE = "debian-installer-12-netboot-amd64";
const IMAGES = "usr/lib/debian-installer/images/12/amd64/text/debian-installer/amd64";

export function fetchInstaller() {
  const done = join(installer, ".complete");
  if (existsSync(done)) return;
  installDebian(["cpio"], "what unpacks the installer");
  mkdirSync(join(installer, "root"), { recursive: true });
  const made = spawnSync(
    "sh",
    [
      "-ec",
      `apt-get update -q && apt-get download -q ${PACKAGE}
       dpkg --fsys-tarfile ${PACKAGE}_*.deb | tar -x --strip-components=10 ./${IMAGES}/linux ./${IMAGES}/initrd.gz
       rm ${PACKAGE}_*.deb
       cd root && zcat ../initrd.gz | cpio -idm --quiet`,
    ],
    { cwd: installer, encoding: "utf8" },
  );
  if (made.status !== 0) {
    console.error(`${made.stdout}${made.stderr}\nDebian's installer was not fetched.`);
    process.exit(1);
  }
  writeFileSync(done, "");
}

if (process.argv[1] === own) fetchInstaller();
