import { describe, expect, it } from "vitest";
import { parse } from "yaml";
import { aBuild, aDrive, shippedProfile, type BuildChanges } from "../../../tests/support/builds";
import { answerFileOf, textOf } from ".";

interface Action {
  id: string;
  type: string;
  device?: string;
  volume?: string;
  volgroup?: string;
  devices?: string[];
  size?: number;
  path?: string;
  match?: { serial: string };
}
interface Autoinstall {
  version: number;
  "early-commands": string[];
  "interactive-sections": string[];
  network: {
    version: number;
    ethernets: Record<string, { match: { macaddress: string }; addresses?: string[] }>;
  };
  storage: { config: Action[] };
}

const SADDLER = shippedProfile("saddler-linux-24");
const told = (changes: BuildChanges = {}) => answerFileOf(aBuild({ profile: SADDLER, ...changes }));
function fileOf(changes: BuildChanges = {}) {
  const answer = told(changes);
  if (answer.kind !== "file") throw new Error(JSON.stringify(answer));
  const text = textOf(answer.file);
  return { ...answer.file, text, tree: (parse(text) as { autoinstall: Autoinstall }).autoinstall };
}

describe("the user data of an installer", () => {
  it("says what the sheet says; the network is that of zone E", () => {
    const { tree, text, lines } = fileOf();
    expect(text.startsWith("#cloud-config\n")).toBe(true);
    expect(tree).toMatchObject({
      ...{ version: 1, locale: "en_GB.UTF-8", keyboard: { layout: "gb" }, timezone: "Europe/London" },
      network: {
        version: 2,
        ethernets: { eno1: { match: { macaddress: "02:61:0a:00:00:14" }, addresses: ["10.61.10.20/24"] } },
      },
    });
    expect(lines).toContainEqual({ text: "  timezone: Europe/London", from: "answers.timeZone" });
    // Asked on the screen, with the password that the file does not hold.
    expect(tree["interactive-sections"]).toEqual(["identity"]);
    expect(text).not.toMatch(/password/);
  });

  it.each(["uefi", "legacy"])(
    "makes the parts of zone D on the drive of that serial, each on what is made before it (%s)",
    (mode) => {
      const { config } = fileOf({ sheet: { "boot.mode": mode } }).tree.storage;
      expect(config[0]).toMatchObject({ type: "disk", match: { serial: "*NV-0001" }, preserve: false });
      const made = new Set<string>();
      for (const one of config) {
        for (const on of [one.device, one.volume, one.volgroup, ...(one.devices ?? [])])
          if (on !== undefined) expect(made, `${one.id} on ${on}`).toContain(on);
        expect(made.has(one.id)).toBe(false);
        made.add(one.id);
        if (one.type === "partition" || one.type === "lvm_partition")
          expect(one.size === -1 || one.size! > 2 ** 19).toBe(true);
      }
      const mounts = config.flatMap((c) => (c.type === "mount" ? [c.path] : []));
      expect(mounts).toEqual(mode === "uefi" ? ["/boot/efi", "/boot", "/"] : ["/boot", "/"]);
      expect(config.find((c) => c.type === "lvm_partition")).toMatchObject({
        name: "root",
        size: 100 * 2 ** 30,
      });
    },
  );

  it("tells what its network cannot say", () => {
    const bridge = { id: "1", kind: "bridge", name: "br0", on: ["02:61:0a:00:00:14"], vlanAware: true };
    const { byHand } = fileOf({ sheet: { "network.interfaces": [bridge], "network.carrier": "br0" } });
    expect(byHand.map((g) => g.message).join()).toMatch(/bridge br0/);
  });

  it("stops before any drive is written: the check is its first command", () => {
    const [command] = fileOf().tree["early-commands"];
    expect(command).toMatch(/^set -eu\n/);
    expect(command).toContain("d1=$(name_of 'NV-0001' 480103981056");
  });

  it("keeps every value in its place, whatever signs a serial is made of", () => {
    for (const serial of ["a: b", "# x", "'", '"', "*&!", "{}", "[x]", "%", "- a", "é", "\\n"]) {
      const { tree } = fileOf({ drives: [aDrive("NV-0001", { serial })] });
      expect(tree.storage.config[0]!.match!.serial, serial).toBe(`*${serial.replace(/[*?[\]\s'"]/g, "?")}`);
      expect(Object.keys(tree)).toHaveLength(9);
    }
  });
});
