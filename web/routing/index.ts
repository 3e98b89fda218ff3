export { History } from './History.tsx'
export { RoutesScreen } from './RoutesScreen.tsx'
