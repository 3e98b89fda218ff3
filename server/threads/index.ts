export { startThread } from './thread.ts'
