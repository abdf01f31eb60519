export type { AnswerFormat, AnswersRead, Untaken } from "./draft";
export { readAnswers } from "./read";
export { offerOf, type AnswersOffer, type Offered, type TakeGround } from "./take";
