export { ApiProblem, call, hrefOf, sentenceOf, upload } from './call.ts'
export { byContract, showFaults } from './forms.ts'
export { useLive } from './live.ts'
export { useAnswer, useChange } from './queries.ts'
