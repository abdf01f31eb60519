export { cacheView, type CacheView } from "./cache";
export { partitionPlan, type PartitionPlan, type PlannedPart } from "./partitions";
export { SWAP_SCHOOLS, type SwapSchool } from "./swap";
export { memoryOf, partitionView, type PartitionView } from "./view";
