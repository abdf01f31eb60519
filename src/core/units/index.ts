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
