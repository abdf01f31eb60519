export { CLASS_NAMES, CLASSES, REBUILD_SHARE, type ClassName } from "./classes";
export {
  COERCIONS,
  fromQuery,
  parseDrives,
  PURPOSES,
  questionSchema,
  toQuery,
  type Question,
} from "./question";
export { poolPartition, RUNG_WORDS, type Rung } from "./capacity";
export { trialOf, type Candidate } from "./candidate";
export { redundancyOf, SCHOOLS, tolerates, type Layout, type School } from "./layout";
export { searchLayouts, searchOver, type BenchAnswer, type Judged } from "./search";
export { chance, consequence, layoutName, percent, SMALL_SHARE } from "./words.en";
export { standing, type Standing } from "./standing";
export { benchQuery } from "./of-machine";
export { REMARK_CODES, remarksOn, type Remark } from "./remarks";
