export { layoutSchema, pressWords, waysToType, type Layout, type Press } from "./layout";
export { typeOn, readAs, type Stored } from "./typed";
