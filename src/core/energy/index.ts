export { heat, meanPower, payBack, yearlyCost, yearlyEnergy, type Running, type Tariff } from "./cost";
export { circuitState, type Circuit, type CircuitMember } from "./circuit";
export { judgeMachine, runningOf, workPerWatt, type Point, type Verdict, type VerdictInput } from "./verdict";
