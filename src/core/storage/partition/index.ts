export {
  gptBounds,
  layOut,
  PARTITION_TYPES,
  type Disk,
  type Partition,
  type PartitionUse,
  type Table,
  type TableLabel,
  type TableTool,
  type WantedPartition,
} from "./table";
