export { SettingsScreen } from './SettingsScreen.tsx'
