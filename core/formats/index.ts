export { age, bounds, quantity, day, moment, number, percent, rateWithin, share } from './formats.ts'
export { country, language, orUnknown } from './names.ts'
