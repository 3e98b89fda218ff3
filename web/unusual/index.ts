export { Unusual } from './Unusual.tsx'
