export { ANSWER_FILES, profileSchema, type Profile } from "./profile";
export type { AnswerScript, ScriptLanguage, ScriptSection } from "./answer-script";
export { lackedBy, lacksOf } from "./lacks";
export { ownProfile, slugOf, type OwnFamily } from "./mine";
export { editProfileYaml } from "./edit-yaml";
export { parseProfileYaml, profileJsonSchema, renderProfileYaml } from "./profile-yaml";
export {
  DRIVE_WORK,
  PLACEHOLDERS,
  READ_BACK,
  screenSchema,
  type DriveWork,
  type Screen,
  type Values,
} from "./screen";
export { ASPECTS, type Aspect, type Fate, type KnownFault, type Upgrade } from "./upgrade";
export { LAYOUTS, TARGET_KINDS, type Layout, type TargetKind } from "./kinds";
export {
  faultsOf,
  identifySystem,
  planRoads,
  ROADS,
  type Installed,
  type Leg,
  type Road,
  type RoadPlan,
  type RouteGround,
} from "./route";
export {
  COMMAND_WORDS,
  NETWORK_FORMATS,
  type CommandKind,
  type NetworkFormat,
  type NetworkProfile,
} from "./network";
