export {
  inForce,
  LEVELS,
  parameterNameProblem,
  parameterSchema,
  parametersSchema,
  parameterValueProblem,
  sealedAs,
  type Given,
  type InForce,
  type Level,
  type Parameter,
} from "./parameter";
export { fillCommand, fillWords, parametersIn, valuesOf, type Values } from "./fill";
