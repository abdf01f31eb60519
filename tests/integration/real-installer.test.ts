import { execFile } from "node:child_process";
import { promisify } from "node:util";
import { describe, expect, it } from "vitest";
import type { ArmingState, BootEvent } from "@/core/netboot";
import { KIND_NAMES, type Kind } from "../support/real-plan";

// Debian 13's own installer in an emulated PC, started over the network from Derrick with Derrick's answer file.
// Real: firmware (SeaBIOS, iPXE in the card), kernel, udev, cdebconf, preseed, netcfg, choose-mirror, net-retriever, anna,
// user-setup, partman with parted_server and the recipe, base-installer with debootstrap, grub-installer, finish-install, and the
// packages that they install. Not the installer's own: modules for drives (of the ordinary package of the same kernel), mke2fs (of
// the ordinary package), and the index of the archive, which is written anew without a signature.
// Reached: "written" is the partition table and the root's file system on the planned drive; "installed" is a system that was
// started from its own disk and has told that it is done. `node scripts/real-installer.mjs` fetches what it needs.

interface Told {
  end: string;
  seconds: number;
  state: ArmingState | null;
  log: BootEvent[];
  table: { type: string; active: boolean; start: number; sectors: number }[];
  touched: string[];
  /** Of the installed system: its file of interfaces, and what of the first start is still there. */
  interfaces: string;
  left: string[];
  missing: string[];
  console: string;
  /** What the installer has written down, its end. */
  syslog: string;
}

/** In CI one kind of drive beside another, in `npm run real` each beside all others, and one of them to its end. */
const IS_WHOLE = process.env.DERRICK_REAL === "whole";
const [KINDS, DRIVES]: [Kind[], string[]] = IS_WHOLE ? [KIND_NAMES, []] : [["sas"], ["sas,sata"]];
const LIMIT = 100 * 60_000;

async function installed(kind: Kind, until: "written" | "installed", how: string[] = []): Promise<Told> {
  const { stdout } = await promisify(execFile)(
    "npx",
    ["tsx", "tests/support/real-pc.ts", kind, until, ...(how.length > 0 ? how : DRIVES)],
    {
      encoding: "utf8",
      maxBuffer: 2 ** 25,
      env: { ...process.env, VITEST: "" },
    },
  );
  return JSON.parse(stdout) as Told;
}

const fetched = (log: readonly BootEvent[]): string[] => [
  ...new Set(log.flatMap((e) => (e.kind === "fetched" && e.whole ? [e.what] : []))),
];

describe("a real installer", () => {
  it.each(KINDS)(
    "cuts and formats the planned drive on %s without a key pressed, and writes to no other",
    async (kind) => {
      const { end, syslog, table, touched, log } = await installed(kind, "written");
      expect([end, syslog.slice(-1500)]).toEqual(["written", expect.anything()]);
      expect(touched).toEqual([]);
      // Legacy mode: both primary, and the root active, as zone D draws it.
      expect(table.map(({ type, active }) => [type, active])).toEqual([
        ["82", false],
        ["83", true],
      ]);
      // The sheet wants 976 MiB for the swap space; the root has the rest.
      expect(table[0]!.sectors * 512).toBe(976 * 2 ** 20);
      expect(fetched(log)).toEqual(["kernel", "initrd 1", "answers tho-a.preseed"]);
    },
    LIMIT,
  );

  it.runIf(IS_WHOLE)(
    "takes its answers out of its initial file system, where the boot loader has read all over HTTPS",
    async () => {
      const { end, syslog, table, touched, log } = await installed("virtio", "written", [
        "virtio,sata",
        "https",
      ]);
      expect([end, syslog.slice(-1500)]).toEqual(["written", expect.anything()]);
      expect(touched).toEqual([]);
      expect(table.map(({ type }) => type)).toEqual(["82", "83"]);
      expect(fetched(log)).toEqual(["kernel", "initrd 1", "answers tho-a.preseed"]);
    },
    LIMIT,
  );

  it.runIf(IS_WHOLE)(
    "installs the system, which starts from its own disk with the planned address, and tells that it is done",
    async () => {
      const { end, state, touched, log, syslog, interfaces, left } = await installed("virtio", "installed");
      expect([end, state?.status, syslog.slice(-1500)]).toEqual(["installed", "done", expect.anything()]);
      expect(touched).toEqual([]);
      const told = log.flatMap((e) => (e.kind === "reported" ? [e.stage] : []));
      expect(told).toEqual(["installed", "first boot", "done"]);
      expect(interfaces).toMatch(/inet static\s+address 10\.61\.20\.11\/26\s+gateway 10\.61\.20\.1\b/);
      expect(left).toEqual([]);
    },
    LIMIT,
  );
});
