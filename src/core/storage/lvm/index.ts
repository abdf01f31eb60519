export {
  extentsOf,
  physicalVolume,
  thinChunk,
  thinMetadata,
  thinPool,
  type PhysicalVolume,
  type ThinPool,
} from "./volumes";
