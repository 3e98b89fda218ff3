export { Desk } from './Desk.tsx'
