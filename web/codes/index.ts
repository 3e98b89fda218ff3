export { FinalAddress } from './FinalAddress.tsx'
export { PlanScreen } from './PlanScreen.tsx'
