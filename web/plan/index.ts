export { PlanScreen } from './PlanScreen.tsx'
export { ImportScreen } from './ImportScreen.tsx'
