export {
  formatBytes,
  formatDecimalBytes,
  formatBinaryBytes,
  formatExactBytes,
  parseByteSize,
  type ByteStyle,
} from "./bytes";
export { formatFixed, formatMoney, formatNumber } from "./numbers";
export {
  formatDuration,
  formatClock,
  addSeconds,
  localDay,
  dayIn,
  daysInWords,
  formatDay,
  secondsBetween,
  fileStamp,
  isTimeZone,
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
