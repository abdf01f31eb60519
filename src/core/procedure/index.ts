export {
  procedureDocument,
  procedureSchema,
  type BuildBasis,
  type BuildProcedure,
  type Procedure,
  type ProcedureKind,
} from "./procedure";
export { buildBasis, numberWords } from "./ask";
