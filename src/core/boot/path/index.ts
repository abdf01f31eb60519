export type { HardDriveNode, PathNode, PlaceNode } from "./node";
export { parseDevicePath, type DevicePath } from "./parse";
export { comparePlaces, fileKey, hardwareOf, nodeOfKind, partitionKey, pathKey } from "./compare";
