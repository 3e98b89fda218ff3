export { pageChanges } from './changes.ts'
export { clockChanges, eventCalendar } from './calendar.ts'
export type { EventFacts } from './calendar.ts'
export { contactCard } from './card.ts'
export type { CardPhoto } from './card.ts'
export {
  addressesOfPage,
  emptyContent,
  faultInWords,
  fieldsOfPage,
  fieldsOfPart,
  fileContent,
  filesOfPage,
  pagesOfPage,
  withPages,
  mappedPoints,
  missingTexts,
  onlyFile,
  PAGE_FIELDS,
  pageContent,
  pageFaults,
  PARTS_MAX,
} from './content.ts'
export type { MissingText, PageContent, PageFault, Placed } from './content.ts'
export { newPage, page, pageRevision, pagesApi, pageSummary } from './contract.ts'
export type { Page, PageRevision, PageSummary } from './contract.ts'
export { publicDocument } from './document.ts'
export type { Writing } from './document.ts'
export { ownCss } from './draw/css.ts'
export { FORM_NAMES } from './draw/form.ts'
export { drawPage } from './draw/drawPage.ts'
export { contactName } from './draw/people.ts'
export { PLAYED_MARKS, STAY_SECONDS } from './draw/script.ts'
export type { FormVisit, ShownFile, Surroundings, Variant } from './draw/surroundings.ts'
export { isCountedAs, EVENT_COUNTS, PAGE_EVENTS, readTold } from './events.ts'
export type { EventCount, PageEvent, PageEventKind } from './events.ts'
export { partName, partTitle } from './partName.ts'
export { newPart, part, PART_FIELDS, PART_KINDS, PART_NAMES } from './parts.ts'
export type { Part, PartKind, PartOf } from './parts.ts'
export { mapKey, placeMap } from './placeMap.ts'
export { pageResultsApi } from './resultsContract.ts'
export type { EventFilter, PageEventRow, PageTally, PieceOnPages } from './resultsContract.ts'
export { memberContent, memberName, newTeam, readTeam, TEAM_MAX, teamApi } from './team.ts'
export type { Team, TeamMember } from './team.ts'
export { walletApi, walletSetting } from './wallet.ts'
export type { WalletSetting, WalletState } from './wallet.ts'
export { startContent, STARTS } from './starts.ts'
export type { StartKey } from './starts.ts'
export { newPageStyle, PAGE_STYLES_MAX, pageStylesApi } from './stylesContract.ts'
export type { SavedStyle } from './stylesContract.ts'
export {
  contrastOn,
  FACES,
  filesOfStyle,
  SCALES,
  SCHEMES,
  pageStyle,
  palettesOf,
  PLAIN_STYLE,
  styleFaults,
  surfacesOf,
} from './style.ts'
export type { Ground, PageStyle, Palette, StyleFault } from './style.ts'
