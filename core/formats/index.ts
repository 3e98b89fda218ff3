export { age, bounds, quantity, day, moment, number, percent, rateWithin, share } from './formats.ts'
export { cityAndCountry, country, language, orUnknown } from './names.ts'
