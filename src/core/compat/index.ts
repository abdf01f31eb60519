export {
  compatNoteSchema,
  noteDocument,
  noteProblems,
  trialSchema,
  VERDICTS,
  type CompatNote,
  type Trial,
} from "./note";
export { coversVersion, claimKindOf, matchNotes, meets, type CompatHit } from "./match";
