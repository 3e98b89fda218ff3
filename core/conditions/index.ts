export { compileCondition, languagesIn } from './compile.ts'
export type { Check, Test } from './compile.ts'
export {
  asksNothing,
  CODE_FIELDS,
  condition,
  DEPTH_MAX,
  EVERY_SCAN,
  leavesOf,
  measureCondition,
  PARTS_MAX,
} from './condition.ts'
export type { CodeField, Condition, Leaf, LeafKind } from './condition.ts'
export { circleAround, EARTH_RADIUS_KM, greatCircleKm } from './greatCircle.ts'
export type { Point } from './greatCircle.ts'
export { fromMercator, mercator, MERCATOR_END } from './mercator.ts'
export {
  conditionInWords,
  countryName,
  languageName,
  joinNames,
  momentInWords,
  whoInWords,
} from './inWords.ts'
export { lookUp } from './lookUp.ts'
export { inVersions } from './versions.ts'
export { plainVisit, pointOf } from './visit.ts'
export type { ScannedCode, Visit } from './visit.ts'
export { casesOf, implies, isImpossible } from './implies.ts'
