export { expectationSchema, planExpectations, type Expectation } from "./expect";
export { acceptanceLineSchema, compareWithPlan, tally, type AcceptanceLine } from "./compare";
export type { Reading } from "./clock";
