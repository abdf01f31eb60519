export { profileSchema, type Profile } from "./profile";
export { editProfileYaml } from "./edit-yaml";
export { parseProfileYaml, profileJsonSchema, renderProfileYaml } from "./profile-yaml";
export { PLACEHOLDERS, screenSchema, type Screen } from "./screen";
export {
  ASPECTS,
  TARGET_KINDS,
  type Aspect,
  type Fate,
  type KnownFault,
  type TargetKind,
  type Upgrade,
} from "./upgrade";
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
