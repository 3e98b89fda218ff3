export { ResultsScreen } from './ResultsScreen.tsx'
