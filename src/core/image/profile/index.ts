export { profileSchema, type Profile } from "./profile";
export { editProfileYaml } from "./edit-yaml";
export { parseProfileYaml, profileJsonSchema, renderProfileYaml } from "./profile-yaml";
export { DRIVE_WORK, PLACEHOLDERS, screenSchema, type DriveWork, type Screen, type Values } from "./screen";
export {
  ASPECTS,
  LAYOUTS,
  TARGET_KINDS,
  type Aspect,
  type Fate,
  type KnownFault,
  type Layout,
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
