export { PhoneScreen } from './PhoneScreen.tsx'
