import type { HardDriveNode, PathNode, PlaceNode } from "./node";
import type { DevicePath } from "./parse";

const isPlace = (node: PathNode): node is PlaceNode => node.kind === "place";

/** The places at the head of a path, as one text that two paths to the same hardware share; "" where there are none. */
export function hardwareOf({ nodes }: DevicePath): string {
  const places: string[] = [];
  for (const node of nodes) {
    if (!isPlace(node)) break;
    // A name space is told by its number; its EUI-64 is printed in two ways.
    const rest = node.bus === "nvme" ? "" : node.rest;
    places.push(`${node.bus}:${node.numbers.join(".")}${rest && `:${rest}`}`);
  }
  return places.join("/");
}

/** Orders paths as a firmware walks its buses: by root, device, function, port. Negative when the first comes first. */
export function comparePlaces(a: DevicePath, b: DevicePath): number {
  const [left, right] = [a, b].map((p) => p.nodes.filter(isPlace).flatMap((n) => n.numbers));
  for (let i = 0; i < Math.max(left!.length, right!.length); i++) {
    const difference = (left![i] ?? -1) - (right![i] ?? -1);
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

/** One text that two equal paths share, however their numbers and letters are printed; data behind them does not count. */
export const pathKey = (path: DevicePath): string =>
  path.nodes
    .map((n) => (isPlace(n) && n.bus === "nvme" ? JSON.stringify({ ...n, rest: "" }) : JSON.stringify(n)))
    .join("/");
