export { office } from './office.ts'
