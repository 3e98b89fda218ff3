export { age, quantity, day, moment, number, share } from './formats.ts'
