export { APP_SYSTEMS, appSwitchIn, withAppSwitch } from './appSwitch.ts'
export type { AppSwitch, AppSystem } from './appSwitch.ts'
export { copyRules } from './copyRules.ts'
export type { Renumbered } from './copyRules.ts'
export { boundNotices, SOON_DAYS } from './bounds.ts'
export type { BoundNotice } from './bounds.ts'
export { compile, compileCode, compileRoute, compileRules, ONWARD_MAX, routeWith } from './compile.ts'
export type {
  CodeSettings,
  Compiled,
  CompiledCode,
  CompiledLane,
  CompiledRoute,
  CompiledRules,
  FindRoute,
  LinkedPage,
  RouteSettings,
} from './compile.ts'
export { draftChange, newRoute, route, ROUTE_SORTS, routeChange, routesApi, state } from './contract.ts'
export type { BoundRow, Effect, ExitTally, Route, RouteChange, WholeRoute, RouteName } from './contract.ts'
export { decide, isLetThrough, NONE_TAKEN, plainArrival, taggedAddress } from './decide.ts'
export type { Arrival, Decision, MessageName, Reason, Taken } from './decide.ts'
export { leadsTo, readDestination } from './destination.ts'
export type { DestinationFault, DestinationReading } from './destination.ts'
export { destination } from './destinationField.ts'
export {
  arrivalOf,
  brokenExpectations,
  expectation,
  leadsWhere,
  rehearsal,
  withoutQuery,
} from './expectations.ts'
export type { Expectation, Rehearsal } from './expectations.ts'
export { finalAddress } from './finalAddress.ts'
export { forecastLimit } from './forecast.ts'
export type { Forecast } from './forecast.ts'
export {
  addressInWords,
  answerInWords,
  changesInWords,
  laneInWords,
  lifeInWords,
  NO_NAMES,
  outcomeInWords,
} from './inWords.ts'
export type { Names } from './inWords.ts'
export {
  addressFiller,
  fillPlaceholders,
  hasPlaceholders,
  PLACEHOLDERS,
  placeholdersIn,
} from './placeholders.ts'
export type { Placeholder, PlaceholderValues } from './placeholders.ts'
export { reviewRoute } from './review.ts'
export type { ReviewFinding } from './review.ts'
export { differences, revision } from './revision.ts'
export type { Difference, Revision } from './revision.ts'
export { laneSetsApi, laneSet } from './laneSets.ts'
export type { LaneSet } from './laneSets.ts'
export {
  allLanes,
  answersOf,
  EXITS,
  isSameRoute,
  lane,
  LANES_MAX,
  lanesOfSet,
  life,
  NO_RULES,
  openLife,
  pagesLedTo,
  routesLedTo,
  rules,
  VARIANTS_MAX,
  WEIGHT_MAX,
} from './rules.ts'
export type { Answer, Lane, LaneOutcome, Life, Rules, Variant } from './rules.ts'
export { chooseVariant } from './split.ts'
export { STATES } from './state.ts'
export type { State } from './state.ts'
export type { TraceStep } from './trace.ts'
