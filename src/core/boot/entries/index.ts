export { bootEntries } from "./entries";
export { OWNERS, type EntryView, type Owner } from "./view";
