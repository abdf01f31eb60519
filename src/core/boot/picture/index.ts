export { bootPicture } from "./picture";
export {
  MEDIUM,
  MOMENTS,
  type BootPicture,
  type Moment,
  type MomentView,
  type Try,
  type Verdict,
} from "./view";
export { endWords, momentSubject, questionWords } from "./words.en";
export { systemAt } from "./moments";
