import type { HardDriveNode, PathNode } from "./node";
import { placeText, type DevicePath } from "./parse";

/** Orders paths as a firmware walks its buses: by root, device, function, port. Negative when the first comes first. */
export function comparePlaces({ numbers: a }: DevicePath, { numbers: b }: DevicePath): number {
  for (let i = 0; i < Math.max(a.length, b.length); i++) {
    const difference = (a[i] ?? -1) - (b[i] ?? -1);
    if (difference !== 0) return difference;
  }
  return 0;
}

export const nodeOfKind = <K extends PathNode["kind"]>(
  { nodes }: DevicePath,
  kind: K,
): Extract<PathNode, { kind: K }> | undefined =>
  nodes.find((n): n is Extract<PathNode, { kind: K }> => n.kind === kind);

/** One text for a partition's identity: what the short form of a path is compared by. */
export const partitionKey = ({
  scheme,
  signature,
  number,
}: Omit<HardDriveNode, "kind" | "start" | "sectors">): string => `${scheme} ${signature} ${number}`;

/** A file's name as FAT compares it: in one case; the first backslash may be missing. */
export const fileKey = (path: string): string => `\\${path.replace(/^\\/, "")}`.toLowerCase();

const nodeText = (node: PathNode): string => {
  switch (node.kind) {
    case "place":
      return placeText(node);
    case "partition":
      return `hd:${partitionKey(node)} ${node.start} ${node.sectors}`;
    case "mac":
      return `mac:${node.address}`;
    case "ip":
      return `ip:${node.version}`;
    default:
      return JSON.stringify(node);
  }
};

/** One text that two equal paths share, however their numbers and letters are printed; data behind them does not count. */
export const pathKey = (path: DevicePath): string => path.nodes.map(nodeText).join("/");
