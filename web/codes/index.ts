export { StateMark } from './columns.tsx'
export { FinalAddress } from './FinalAddress.tsx'
export { PlanScreen } from './PlanScreen.tsx'
