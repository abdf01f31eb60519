import { describe, expect, it } from "vitest";
import { aBuild, aDrive, MAC } from "../../../../tests/support/builds";
import { bootEntries, type EntryView } from ".";

const esp = (partUuid: string) => [
  { part: "p1", sizeBytes: 9, kind: "vfat", label: null, mountedAt: [], partUuid },
  { part: "p2", sizeBytes: 9, kind: "ext4", label: null, mountedAt: partUuid === "run" ? ["/"] : [] },
];
const mac = `MAC(${MAC.replaceAll(":", "")},1)`;
const TAG = "N.....YM....R,Y.";
const LISTED: [id: string, label: string, path: string][] = [
  ["0001", "Saddler", "HD(1,GPT,run,0x800,0x1000)/File(\\EFI\\saddler\\shimx64.efi)"],
  ["0002", "Other", "HD(1,GPT,other,0x800,0x1000)/File(\\EFI\\a.efi)"],
  ["0003", "Gone", "HD(1,GPT,gone,0x800,0x1000)/File(\\EFI\\a.efi)"],
  ["0004", "Port 1", `${mac}/IPv4(0.0.0.0)`],
  ["0005", "Port of a card that was sold", "MAC(02ffffffffff,1)"],
  ["0006", "Virtual CD", "PciRoot(0x0)/Pci(0x14,0x0)/USB(4,0)/CDROM(0x0)"],
  [
    "0007",
    "Shell",
    "FvVol(7cb8bdc9-f8eb-4f34-aaea-3ee4af6516a1)/FvFile(7c04a583-9e3e-4f1c-ad65-e05268d0b4d1)",
  ],
  ["0008", "Saddler again", "HD(1,GPT,run,0x800,0x1000)/File(\\EFI\\saddler\\shimx64.efi)"],
  ["0009", "Alder 480 NV-0001", `PciRoot(0x0)/Pci(0x1f,0x2)/Sata(0,65535,0)${TAG}`],
  ["000A", "Broken", "HD(1,GPT"],
  ["000B", "Old disk", "BBS(HD,,0x0)"],
];
const plan = (more: Parameters<typeof aBuild>[0] = {}) =>
  aBuild({
    drives: [aDrive("NV-0001", { contents: esp("run") }), aDrive("NV-0002", { contents: esp("other") })],
    facts: {
      system: { osName: "Saddler 22" },
      firmware: {
        ...{ mode: "uefi", order: ["0003", "0001", "00EE"] },
        entries: LISTED.map(([id, label, path]) => ({
          id,
          label,
          active: true,
          kind: "other" as const,
          path,
        })),
      },
    },
    ...more,
  });
const of = (views: EntryView[], id: string) => views.find((v) => v.id === id)!;

describe("the list of a firmware", () => {
  const views = bootEntries(plan(), []);

  it.each([
    ["0001", "the running system"],
    ["0002", "another system"],
    ["0003", "nobody: stale"],
    ["0004", "the network"],
    ["0005", "nobody: stale"],
    ["0006", "a medium"],
    ["0007", "the firmware"],
    ["0008", "the running system"],
    ["0009", "the firmware"],
    ["000A", "not known"],
    ["000B", "not known"],
  ])("tells whose entry %s is: %s", (id, owner) => expect(of(views, id).owner).toBe(owner));

  it("stands in the order of the firmware, and behind it what the order does not name", () => {
    expect(views.map((v) => v.id).slice(0, 3)).toEqual(["0003", "0001", "0002"]);
    expect(of(views, "0001").place).toBe(2);
    expect(of(views, "0002").place).toBeNull();
  });

  it("says what would be lost, and that nothing is while another entry leads to the same", () => {
    expect(of(views, "0002").loses).toBe("the system on Alder 480 no longer boots");
    expect(of(views, "0001").loses).toBe("none while 0008 exists: it boots the same");
    expect(of(views, "0003").loses).toBe("nothing");
    expect(of(views, "000A").loses).toBe("unknown: check first");
  });

  it("says what the installation makes of it: only what stands on the target goes stale", () => {
    expect(of(views, "0001").after).toBe("stale: the installation writes a new partition table");
    expect(of(views, "0002").after).toBe("stays");
    expect(of(views, "0003").after).toContain("none, but a leftover entry shows a message at each boot");
  });

  it("calls nothing stale while a drive is there of which nobody has read the partitions", () => {
    const unread = plan({
      drives: [aDrive("NV-0001", { contents: null })],
      facts: {
        firmware: {
          mode: "uefi",
          order: [],
          entries: [{ id: "0003", label: "x", active: true, kind: "disk", path: "HD(1,GPT,gone)" }],
        },
      },
    });
    expect(bootEntries(unread, [])[0]?.owner).toBe("not known");
  });

  it("is empty for a machine that was found in legacy mode, or that is not there", () => {
    expect(bootEntries(plan({ facts: { firmware: { mode: "legacy" } } }), [])).toEqual([]);
    expect(bootEntries(plan({ machine: null }), [])).toEqual([]);
  });
});
