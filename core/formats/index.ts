export {
  age,
  bounds,
  quantity,
  day,
  dayRange,
  moment,
  number,
  percent,
  rateWithin,
  share,
  withMinus,
} from './formats.ts'
export { cityAndCountry, country, language, orUnknown } from './names.ts'
