export {
  mdFault,
  mdFigures,
  MD_LEVELS,
  type MdFigures,
  type MdLayout,
  type MdLevel,
  type MdMetadata,
  type MdShape,
} from "./array";
