export { ApiProblem, call, hrefOf, upload } from './call.ts'
export { byContract, showFaults } from './forms.ts'
export { useLive } from './live.ts'
export { useAnswer, useChange } from './queries.ts'
