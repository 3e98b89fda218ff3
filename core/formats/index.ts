export {
  age,
  bounds,
  quantity,
  day,
  moment,
  number,
  percent,
  rateWithin,
  share,
  withMinus,
} from './formats.ts'
export { cityAndCountry, country, language, orUnknown } from './names.ts'
