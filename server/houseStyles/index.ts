export { houseStylesEndpoints } from './endpoints.ts'
export { styleNames } from './names.ts'
export { insertNeutralStyles } from './neutral.ts'
