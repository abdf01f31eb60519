export {
  mdFault,
  mdFigures,
  ringWidth,
  MD_LEVELS,
  type MdFigures,
  type MdLayout,
  type MdLevel,
  type MdMetadata,
  type MdShape,
} from "./array";
