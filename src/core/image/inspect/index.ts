export { inspectImage } from "./inspect";
export {
  ANSWERS,
  FIRMWARES,
  inspectionSchema,
  type Cell,
  type Firmware,
  type Inspection,
  type Region,
} from "./inspection";
export { drive, driveLater, READ_BUDGET, type Reading } from "./reader";
