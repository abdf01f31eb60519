export {
  accountSchema,
  accountNameProblem,
  hostNameProblem,
  domainProblem,
  isTimeZone,
  type Account,
} from "./names";
export * from "./keyboard";
