export {
  HOUSE_STYLE_NAME_MAX,
  HOUSE_STYLES_MAX,
  houseStyle,
  houseStylesApi,
  newHouseStyle,
  styleUse,
} from './contract.ts'
export type { HouseStyle, NewHouseStyle, StyleUse } from './contract.ts'
export { filesOf } from './filesOf.ts'
