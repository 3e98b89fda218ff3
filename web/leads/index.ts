export { LeadsScreen } from './LeadsScreen.tsx'
