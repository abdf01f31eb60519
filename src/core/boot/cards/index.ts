export { cardModule } from "./module";
export { syncEnd, type PercentReading, type SyncEnd } from "./sync";
export type { CardModuleView, SyncView } from "./view";
