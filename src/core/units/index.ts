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
  secondsBetween,
  formatDate,
  formatDateTime,
} from "./duration";
