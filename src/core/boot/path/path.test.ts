import { describe, expect, it } from "vitest";
import { comparePlaces, fileKey, nodeOfKind, parseDevicePath, partitionKey, pathKey } from ".";

const GUID = "0061000a-1111-4222-8333-444455556666";

describe("a device path of efibootmgr -v", () => {
  it.each<[string, string, object[]]>([
    [
      "a partition and a file",
      `HD(2,GPT,${GUID.toUpperCase()},0x800,0x14000)/File(\\EFI\\lowland\\shimx64.efi)`,
      [
        { kind: "partition", number: 2, scheme: "GPT", signature: GUID, start: 2048, sectors: 81920 },
        { kind: "file", path: "\\EFI\\lowland\\shimx64.efi" },
      ],
    ],
    [
      "a file without brackets, as newer versions print it",
      `HD(1,GPT,${GUID},0x800,0x14000)/\\EFI\\lowland\\grubx64.efi`,
      [
        { kind: "partition", number: 1, scheme: "GPT", signature: GUID, start: 2048, sectors: 81920 },
        { kind: "file", path: "\\EFI\\lowland\\grubx64.efi" },
      ],
    ],
    [
      "an MBR partition, its signature with 0x or without",
      "HD(1,MBR,0xdeadbeef,0x800,0x8000)",
      [{ kind: "partition", number: 1, scheme: "MBR", signature: "deadbeef", start: 2048, sectors: 32768 }],
    ],
    [
      "a SATA port",
      "PciRoot(0x0)/Pci(0x1f,0x2)/Sata(1,65535,0)",
      [
        { kind: "place", bus: "root", numbers: [0], rest: "" },
        { kind: "place", bus: "pci", numbers: [31, 2], rest: "" },
        { kind: "place", bus: "sata", numbers: [1, 65535, 0], rest: "" },
      ],
    ],
    [
      "a name space",
      "PciRoot(0x0)/Pci(0x5,0x0)/NVMe(0x1,00-25-38-5B-71-B0-11-22)",
      [
        { kind: "place", bus: "root", numbers: [0], rest: "" },
        { kind: "place", bus: "pci", numbers: [5, 0], rest: "" },
        { kind: "place", bus: "nvme", numbers: [1], rest: "00-25-38-5B-71-B0-11-22" },
      ],
    ],
    [
      "HTTP boot with a fixed URI, whose slashes part no nodes",
      "MAC(02610a000014,1)/IPv4(0.0.0.00.0.0.0,0,0)/Uri(http://10.61.10.2:8080/boot/a.efi)",
      [
        { kind: "mac", address: "02610a000014" },
        { kind: "ip", version: 4 },
        { kind: "uri", uri: "http://10.61.10.2:8080/boot/a.efi" },
      ],
    ],
    [
      "IPv6, with brackets inside",
      "MAC(02610A000014,0x1)/IPv6([::]:<->[::]:,0,0)/Uri()",
      [
        { kind: "mac", address: "02610a000014" },
        { kind: "ip", version: 6 },
        { kind: "uri", uri: "" },
      ],
    ],
    [
      "any stick",
      "UsbMassStorage(0xffff,0xffff,6,80)",
      [{ kind: "usb class", maker: 65535, product: 65535, subclass: 6 }],
    ],
    [
      "one stick",
      'UsbWwid(0x0781,0x5583,0,"PBL37742")',
      [{ kind: "usb serial", maker: 0x781, product: 0x5583, serial: "PBL37742" }],
    ],
    [
      "a program of the firmware",
      "FvVol(7cb8bdc9-f8eb-4f34-aaea-3ee4af6516a1)/FvFile(7c04a583-9e3e-4f1c-ad65-e05268d0b4d1)",
      [
        { kind: "firmware", volume: true, guid: "7cb8bdc9-f8eb-4f34-aaea-3ee4af6516a1" },
        { kind: "firmware", volume: false, guid: "7c04a583-9e3e-4f1c-ad65-e05268d0b4d1" },
      ],
    ],
    [
      "hardware of a maker, and a node that nobody knows",
      "VenHw(99e275e7-75a0-4b37-a2e6-c5385e6c00cb,0102)/Frobnicate(1,2)",
      [
        { kind: "vendor", of: "hardware", guid: "99e275e7-75a0-4b37-a2e6-c5385e6c00cb", data: "0102" },
        { kind: "other", text: "Frobnicate(1,2)" },
      ],
    ],
    ["a legacy device", "BBS(HD,,0x0)", [{ kind: "legacy", type: "hd", words: ",0x0" }]],
    [
      "an iSCSI volume with its name",
      "MAC(02610a000014,0)/iSCSI(iqn.2026-11.example:boot,0x1,0x0)",
      [
        { kind: "mac", address: "02610a000014" },
        { kind: "place", bus: "iscsi", numbers: [1, 0], rest: "iqn.2026-11.example:boot" },
      ],
    ],
    [
      "a VLAN",
      "MAC(02610a000014,1)/Vlan(20)",
      [
        { kind: "mac", address: "02610a000014" },
        { kind: "vlan", id: 20 },
      ],
    ],
  ])("is read: %s", (_, text, nodes) => {
    expect(parseDevicePath(text)).toMatchObject({ nodes, data: "", fault: null });
  });

  it("keeps the data that stand behind it apart", () => {
    const tag = "N.....YM....R,Y.";
    expect(parseDevicePath(`PciRoot(0x0)/Pci(0x4,0x0)/USB(0,0)${tag}`)).toMatchObject({
      data: tag,
      fault: null,
    });
    expect(parseDevicePath(`HD(1,GPT,${GUID})/\\EFI\\a.efi..BO`)).toMatchObject({ data: "..BO" });
  });

  it.each([
    ["HD(1,GPT", 0],
    ["PciRoot(0x0)/Pci(0x1f", 13],
    ["PciRoot(0x0)/", 13],
    ["not a path", 0],
    ["", 0],
  ])("says where it breaks off, and keeps what stood before: %s", (text, at) => {
    const { fault, nodes } = parseDevicePath(text);
    expect(fault?.at).toBe(at);
    expect(nodes).toHaveLength(at === 0 ? 0 : 1);
  });

  it("never throws, whatever is cut off or changed", () => {
    const text = `PciRoot(0x0)/Pci(0x1f,0x2)/Sata(0,65535,0)/HD(1,GPT,${GUID},0x800,0x14000)/File(\\EFI\\a.efi)`;
    for (let i = 0; i <= text.length; i++)
      for (const put of ["", "(", ")", "/", ",", "\\", "\u0000"])
        expect(Array.isArray(parseDevicePath(text.slice(0, i) + put + text.slice(i + 1)).nodes)).toBe(true);
  });
});

describe("two device paths", () => {
  const [a, b] = ["Sata(0x1,0xFFFF,0x0)", "Sata(1,65535,0)"].map((end) =>
    parseDevicePath(`PciRoot(0x0)/Pci(0x1F,0x2)/${end}`),
  );

  it("are the same place however their numbers are printed", () => {
    expect(a!.hardware).toBe(b!.hardware);
    expect(pathKey(a!)).toBe(pathKey(b!));
  });

  it("come in the order of their buses, ports and name spaces", () => {
    const places = ["Pci(0x1f,0x2)/Sata(1,0,0)", "Pci(0x1f,0x2)/Sata(0,0,0)", "Pci(0x4,0x0)/USB(0,0)"].map(
      (p) => parseDevicePath(`PciRoot(0x0)/${p}`),
    );
    expect(places.toSorted(comparePlaces)).toEqual([places[2], places[1], places[0]]);
  });

  it("name the same partition by signature and number, and the same file as FAT compares names", () => {
    const node = nodeOfKind(parseDevicePath(`HD(1,GPT,${GUID},0x0,0x0)`), "partition")!;
    expect(partitionKey(node)).toBe(partitionKey({ scheme: "GPT", signature: GUID, number: 1 }));
    expect(partitionKey(node)).not.toBe(partitionKey({ ...node, number: 2 }));
    expect(fileKey("EFI\\Lowland\\GRUBX64.EFI")).toBe(fileKey("\\efi\\lowland\\grubx64.efi"));
    expect(fileKey("/EFI/lowland/grubx64.efi")).not.toBe(fileKey("\\EFI\\lowland\\grubx64.efi"));
  });
});
