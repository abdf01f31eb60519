/** A partition as a device path names it. `signature` is a GUID or the MBR's disk signature, in lower-case hex. */
export interface HardDriveNode {
  kind: "partition";
  number: number;
  scheme: "GPT" | "MBR" | "other";
  signature: string;
  /** In sectors of the drive; null where the path does not tell. */
  start: number | null;
  sectors: number | null;
}

/** Where hardware is: a bus, a port, a name space. `numbers` are its arguments in their order. */
export interface PlaceNode {
  kind: "place";
  bus:
    "root" | "pci" | "sata" | "ata" | "nvme" | "usb" | "scsi" | "sas" | "fibre" | "iscsi" | "card" | "unit";
  numbers: readonly number[];
  /** What else its arguments say: the name of an iSCSI target, the number of a name space. */
  rest: string;
}

/** One node of a device path, by what it means for the start. */
export type PathNode =
  | PlaceNode
  | HardDriveNode
  | { kind: "boot image"; entry: number }
  | { kind: "file"; path: string }
  | { kind: "mac"; address: string }
  | { kind: "ip"; version: 4 | 6 }
  | { kind: "uri"; uri: string }
  | { kind: "usb class"; maker: number; product: number; subclass: number }
  | { kind: "usb serial"; maker: number; product: number; serial: string }
  | { kind: "firmware"; volume: boolean; guid: string }
  | { kind: "vendor"; of: "hardware" | "messaging" | "media"; guid: string; data: string }
  | { kind: "legacy"; type: string; words: string }
  | { kind: "vlan"; id: number }
  | { kind: "other"; text: string };
