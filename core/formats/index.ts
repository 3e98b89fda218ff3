export { age, counted, day, moment, number, share } from './formats.ts'
