export { shapeFault, vdevShape, type VdevKind, type VdevShape } from "./shape";
export { allocated, deflated, vdevFigures, type VdevFigures } from "./vdev";
export { fileUnits, poolFigures, spaceOf, thickReservation, volumeSpace, type PoolFigures } from "./pool";
