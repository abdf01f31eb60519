export { start, worldOf, type Medium, type Running, type World, type WorldGround } from "./world";
export { carryOut } from "./carry-out";
export { look, type Looked } from "./look";
