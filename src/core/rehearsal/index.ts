export { FAULTS } from "./faults";
export type { Caught, Fault } from "./fault";
export { rehearse, type Report } from "./rehearse";
