export { layoutSchema, pressWords, waysToType, type Layout, type Press } from "./layout";
export { layouts, type NamedLayout } from "./layouts";
export { keyboardNamed, xkbNames } from "./names";
export { movedCharacters, sameOnAll, trapOf, typeToGet, type Between, type Moved, type Trap } from "./trap";
export { typeOn, readAs, type Stored } from "./typed";
