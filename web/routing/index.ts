export { History } from './History.tsx'
export { RoutesScreen } from './RoutesScreen.tsx'
export { SharedLanes } from './SharedLanes.tsx'
export { RouteChoice } from './RouteChoice.tsx'
