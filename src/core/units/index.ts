export {
  formatBytes,
  formatDecimalBytes,
  formatBinaryBytes,
  formatExactBytes,
  parseByteSize,
  type ByteStyle,
} from "./bytes";
export {
  formatDuration,
  formatClock,
  addSeconds,
  dayIn,
  secondsBetween,
  formatDate,
  formatDateTime,
} from "./duration";
export {
  byteCount,
  bytesOf,
  secondCount,
  sectorCount,
  sectorsIn,
  total,
  type ByteCount,
  type SecondCount,
  type SectorCount,
} from "./quantity";
