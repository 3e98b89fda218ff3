export { anonymise } from './anonymise.ts'
export { isChosen, isFile, OTHER } from './answers.ts'
export type { Answer, AnswerFile, Answers, Chosen } from './answers.ts'
export { ALWAYS } from './branch.ts'
export type { AnswerTest, Branch } from './branch.ts'
export { faultWords, megabytesIn } from './faultWords.ts'
export { CONFIRM_DAYS, FORM_FIELDS } from './formFields.ts'
export type { FormSettings } from './formFields.ts'
export { formState } from './formState.ts'
export type { FormState } from './formState.ts'
export {
  newQuestion,
  question,
  QUESTION_FIELDS,
  QUESTION_KINDS,
  QUESTION_NAMES,
  QUESTIONS_MAX,
  questionsField,
  questionTitle,
} from './questions.ts'
export type { Asked, Question, QuestionKind, QuestionOf } from './questions.ts'
export {
  ANSWER_FILE_MAX,
  keptName,
  otherName,
  rankName,
  RATING_STEPS,
  readAnswer,
  SCALE_MOST,
  valueName,
} from './readAnswer.ts'
export type { AnswerFault, AnswerReaders, ReadAnswer, SentValues } from './readAnswer.ts'
export { readForm } from './readForm.ts'
export type { ReadForm } from './readForm.ts'
export { readNumber } from './readNumber.ts'
export { unreachable } from './reach.ts'
export { reviewForm } from './review.ts'
export type { FormFault } from './review.ts'
export { answerText, fillAnswers, fillRich } from './placeholders.ts'
export { shuffled } from './shuffle.ts'
export { STARTING_FORMS, startingForm } from './startingForms.ts'
export type { StartingFormKey } from './startingForms.ts'
export { isTaken, sectionsOf, walkForm } from './shown.ts'
