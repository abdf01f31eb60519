import { spawnSync } from "node:child_process";
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, expect, it } from "vitest";
import { imageSeedOf, textOf } from "@/core/answers";
import { aBuild, shippedProfile } from "../support/builds";
import { A_HASH, A_KEY, anAccount } from "../support/keys";

// A seed before cloud-init itself, in a Debian root: this machine's own under a layer that takes what is written, with a network,
// a host name and processes of its own. All its stages run, as at the first start of an image.

const folder = mkdtempSync(join(tmpdir(), "derrick-cloud-"));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

const MAC = "02:61:0a:00:00:14";
const MARK = "----- after cloud-init";
/** Carries out the seed, and then prints what the root has become. */
const SCRIPT = `set -e
cd ${folder}
mount -t tmpfs none layer
mkdir layer/up layer/work
mount -t overlay none -o lowerdir=/,upperdir=layer/up,workdir=layer/work root
seed=root/var/lib/cloud/seed/nocloud
rm -rf root/var/lib/cloud root/etc/cloud/cloud.cfg.d/*
mkdir -p $seed && cp user-data meta-data network-config $seed
echo 'datasource_list: [NoCloud]' > root/etc/cloud/cloud.cfg.d/99.cfg
mount -t proc none root/proc
mount -t sysfs none root/sys
mount --bind /dev root/dev
mount -t tmpfs none root/run
# What cloud-init looks for: an init system of the usual kind, and the port of the plan.
mkdir -p root/run/systemd/system
# No init system runs here that localectl could ask: what it is told is written down.
printf '#!/bin/sh\\necho "$@" > /root/localectl\\n' > root/usr/bin/localectl
ip tuntap add dev eno1 mode tap
ip link set eno1 address ${MAC}
hostname before
for stage in 'init --local' init 'modules --mode=config' 'modules --mode=final'; do chroot root cloud-init $stage || :; done
echo '${MARK}'
cat root/run/cloud-init/result.json
for file in etc/hostname etc/default/locale etc/timezone etc/default/keyboard etc/passwd etc/shadow etc/group etc/netplan/* etc/network/interfaces.d/* root/built root/localectl root/.ssh/authorized_keys home/*/.ssh/authorized_keys; do
  [ ! -e root/$file ] || { echo "== $file"; cat root/$file; }
done
hostname
`;

it("cloud-init does all of a seed at the first boot, with no error", () => {
  for (const name of ["layer", "root"]) mkdirSync(join(folder, name));
  const sheet = {
    "answers.finish": ["echo 'a; b' \"$(hostname)\" > /root/built"],
    "answers.accounts": [
      anAccount("root", "super-user", "key", [A_KEY]),
      anAccount("jpell", "administrator", "password"),
      anAccount("guard", "ordinary", "key", [A_KEY]),
    ],
    "answers.domain": "works.example",
  };
  const plan = aBuild({ profile: shippedProfile("millrace-12"), sheet });
  const seed = imageSeedOf(plan, new Map([["jpell", A_HASH]]));
  if (seed?.kind !== "file") throw new Error(JSON.stringify(seed));
  const names = ["user-data", "meta-data", "network-config"];
  [seed.file, ...seed.also].forEach((file, i) => writeFileSync(join(folder, names[i]!), textOf(file)));

  const ran = spawnSync("unshare", ["-m", "-u", "-n", "-p", "-f", "--mount-proc", "sh"], {
    ...{ input: SCRIPT, encoding: "utf8" },
  });
  const [said = "", after = ""] = ran.stdout.split(MARK);
  expect([ran.status, ran.stderr.slice(-2000), said.slice(-2000)]).toEqual([
    0,
    expect.anything(),
    expect.anything(),
  ]);
  expect(after).toContain('"errors": []');
  expect(after).toContain("seed=/var/lib/cloud/seed/nocloud");
  for (const line of [
    /== etc\/hostname\nwrk-hv1\n/,
    /^LANG=en_GB\.UTF-8$/m,
    /== etc\/timezone\nEurope\/London\n/,
  ])
    expect(after).toMatch(line);
  expect(after).toMatch(/== root\/built\na; b wrk-hv1\n/);
  expect(after).toMatch(/== root\/localectl\nset-x11-keymap gb pc105\s*\n/);
  expect(after).toContain(`jpell:${A_HASH}:`);
  expect(after).toMatch(/^sudo:.*jpell$/m);
  expect(after.split(A_KEY)).toHaveLength(3);
  expect(after).toContain(plan.sheet.network.address);
});
