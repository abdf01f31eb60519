export type { HardDriveNode, PathNode, PlaceNode } from "./node";
export { parseDevicePath, pathOf, type DevicePath } from "./parse";
export { comparePlaces, fileKey, nodeOfKind, partitionKey, pathKey } from "./compare";
