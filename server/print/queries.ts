// The reading thread's door to this room: prepared SQL alone, nothing of the office.
export { printStates } from './printStates.ts'
