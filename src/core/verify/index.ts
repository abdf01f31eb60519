export { expectationSchema, planExpectations, type Expectation } from "./expect";
export { acceptanceLineSchema, compareWithPlan, tally, type AcceptanceLine } from "./compare";
export { otherChassis } from "./chassis";
export type { Reading } from "./clock";
