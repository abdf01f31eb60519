export {
  compatNoteSchema,
  noteDocument,
  noteProblems,
  trialSchema,
  VERDICTS,
  type CompatNote,
  type Trial,
} from "./note";
export { coversVersion, matchNotes, type CompatHit } from "./match";
