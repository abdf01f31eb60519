import { execFile } from "node:child_process";
import { promisify } from "node:util";
import { describe, expect, it } from "vitest";
import type { ArmingState, BootEvent } from "@/core/netboot";

// A PC in software, with the firmware and the iPXE that real ones have, boots from Derrick with Derrick's own DHCP text: it
// installs a tiny system, and starts that from its disk although the network still comes first. `node scripts/tiny-system.mjs`
// makes what it installs.

const LIMIT = 16 * 60_000;

interface Told {
  end: string;
  state: ArmingState;
  log: BootEvent[];
  console: string;
  dhcp: string;
}

async function startedPc(firmware: string): Promise<Told> {
  const { stdout } = await promisify(execFile)(
    "unshare",
    ["-n", "-m", "npx", "tsx", "tests/support/emulated-pc.ts", firmware],
    { encoding: "utf8", maxBuffer: 2 ** 25, env: { ...process.env, VITEST: "" } },
  );
  return JSON.parse(stdout) as Told;
}

const inShort = (event: BootEvent): string => {
  if (event.kind === "asked" && !event.given && /code/.test(event.words))
    return event.wrongCode ? "showed a wrong code" : "asked for a code";
  if (event.kind === "asked")
    return event.given ? "given its installation" : event.waits ? "told to wait" : "sent to its disk";
  if (event.kind === "fetched") return `${event.what}${event.whole ? "" : ", in part"}`;
  return event.kind === "reported" ? `told ${event.stage}` : event.kind;
};

describe.concurrent("an emulated PC", () => {
  it.each([
    // The iPXE in the card's own memory asks first.
    ["bios", "vendor class: PXEClient:Arch:00000"],
    ["uefi", "vendor class: PXEClient:Arch:00007"],
    ["uefi over http", "vendor class: HTTPClient:Arch:00016"],
    // As a signed loader does: GRUB asks by itself, and no iPXE is there.
    ["uefi with grub", "vendor class: PXEClient:Arch:00007"],
  ])(
    "with %s installs itself once, tells how far it is, and is led to its disk afterwards",
    async (firmware, asks) => {
      const { end, state, log, console, dhcp } = await startedPc(firmware);
      expect([end, console.slice(-300)]).toEqual(["switched itself off", expect.anything()]);
      expect(dhcp).toContain(asks);
      const said = log.map(inShort).filter((words, i, all) => words !== all[i - 1]);
      expect(said).toEqual([
        // A person types the code of its arming at its console, the first time another one.
        ...(/bios|grub/.test(firmware) ? ["asked for a code", "showed a wrong code"] : []),
        // Another one is installing itself, and takes all that the server gives.
        ...(firmware === "bios" ? ["told to wait"] : []),
        ...["given its installation", "kernel", "initrd 1", "answers tho-a.ks", "tree images/disk.img"],
        ...["first-boot", "told installed", "sent to its disk", "told first boot", "told done"],
      ]);
      expect(state.status).toBe("done");
      // In their order on the console of the machine itself.
      const words = [
        ...(firmware === "bios" ? ["Derrick: Queued: 1 machine is being installed"] : []),
        ...[
          "Derrick: installing tho-a",
          "tiny: writes the drive SLW5129931",
          "tiny: installed, starts again",
        ],
        ...["Derrick: Already installed", "disk: started", "tiny: first start from the disk"],
      ];
      const places = words.map((text) => console.indexOf(text));
      expect(places).not.toContain(-1);
      expect(places).toEqual([...places].sort((a, b) => a - b));
    },
    LIMIT,
  );
});
