// npm run corpus: makes the boot images that the inspector is tested against, with Debian's own tools and frozen dates,
// in .derrick/corpus. What is missing is installed. It does nothing when the images are there.
import { existsSync, mkdirSync, readdirSync, rmSync, writeFileSync } from "node:fs";
import { resolve } from "node:path";
import { spawnSync } from "node:child_process";
import { installDebian, root, run } from "./setup.mjs";

const PACKAGES =
  "xorriso genisoimage mtools dosfstools gdisk fdisk faketime isolinux syslinux syslinux-common syslinux-utils grub-pc-bin grub-efi-amd64-bin grub-efi-ia32-bin grub-common memtest86+ grub-rescue-pc python3".split(
    " ",
  );
const out = resolve(root, ".derrick/corpus");
const done = `${out}/.complete`;
/** Sets of images by the script's cases, with how many they make. */
const SETS = [
  { cases: "public", begin: "p", images: 23 },
  { cases: "drivermap", begin: "d", images: 2 },
];
const countOf = (begin) => readdirSync(out).filter((f) => new RegExp(`^${begin}\\d\\d-`).test(f)).length;

/** Builds the corpus when it is not there yet. */
export function makeCorpus() {
  makeUdf();
  mkdirSync(out, { recursive: true });
  if (existsSync(done) && SETS.every(({ begin, images }) => countOf(begin) === images)) return;
  installDebian(PACKAGES, "the tools that make boot images");
  const env = { ...process.env, ARM64_ROOT: armLoaders(), PYTHONDONTWRITEBYTECODE: "1" };
  const script = resolve(root, "tests/fixtures/boot/make_corpus.py");
  for (const { cases, begin, images } of SETS) {
    const made = spawnSync("python3", [script, out, cases], { encoding: "utf8", env });
    rmSync(`${out}/.work`, { recursive: true, force: true });
    if (made.status === 0 && countOf(begin) === images) continue;
    console.error(made.stdout, made.stderr, `\n${countOf(begin)} of ${images} boot images were made.`);
    process.exit(1);
  }
  writeFileSync(done, "");
}

/** UDF volumes without ISO 9660, with names that need 8 and 16 bits a sign. */
function makeUdf() {
  const volumes = [
    ["u01-udf-2048.img", "2048", "Überfahrt Süd"],
    ["u02-udf-512.img", "512", "Рама 12"],
  ];
  if (volumes.every(([name]) => existsSync(`${out}/${name}`))) return;
  installDebian(["udftools"], "the tool that makes UDF volumes");
  mkdirSync(out, { recursive: true });
  for (const [name, block, label] of volumes) {
    writeFileSync(`${out}/${name}`, new Uint8Array(2 * 2 ** 20));
    const made = spawnSync(
      "mkudffs",
      ["--media-type=hd", `--blocksize=${block}`, `--label=${label}`, `${out}/${name}`],
      { encoding: "utf8", env: { ...process.env, LC_ALL: "C.UTF-8" } },
    );
    if (made.status !== 0) {
      rmSync(`${out}/${name}`);
      console.error(made.stderr, `\n${name} was not made.`);
      process.exit(1);
    }
  }
}

/** Loaders for another processor come from that architecture's package, unpacked without being installed. */
function armLoaders() {
  const folder = resolve(root, ".derrick/arm64");
  if (existsSync(`${folder}/usr/lib/grub/arm64-efi`)) return folder;
  mkdirSync(folder, { recursive: true });
  const had = spawnSync("dpkg", ["--print-foreign-architectures"], { encoding: "utf8" }).stdout.includes(
    "arm64",
  );
  if (!had) run("dpkg", ["--add-architecture", "arm64"]);
  run("apt-get", ["update", "-q"]);
  run("sh", [
    "-ec",
    `cd '${folder}' && apt-get download -q grub-efi-arm64-bin:arm64 && dpkg -x grub-efi-arm64-bin_*.deb . && rm grub-efi-arm64-bin_*.deb`,
  ]);
  if (!had) run("dpkg", ["--remove-architecture", "arm64"]);
  return folder;
}

if (process.argv[1]?.endsWith("corpus.mjs")) makeCorpus();
