export { RoutesScreen } from './RoutesScreen.tsx'
