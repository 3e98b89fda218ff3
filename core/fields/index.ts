export { isDeviceAddress, linkAddress, linkFault } from './address.ts'
export { escapeMarkup } from './escapeMarkup.ts'
export {
  address,
  choice,
  day,
  emptyOf,
  file,
  hours,
  isAsked,
  key,
  kinds,
  kindUnion,
  list,
  moment,
  number,
  pageChoice,
  point,
  rich,
  rowKey,
  shapeOf,
  text,
  toggle,
  under,
  words,
} from './fields.ts'
export type { Field, Fields, FileTake, GeoPoint, KindsField, ValuesOf, WeekHours } from './fields.ts'
export { fallbacks, firstSaid, languageFor, LANGUAGES_MAX, languageTag } from './localised.ts'
export type { Localised } from './localised.ts'
export { html, trusted } from './markup.ts'
export type { Markup } from './markup.ts'
export { isOpen, openingHours, openState, slotsOn } from './openingHours.ts'
export type { OpeningHours, OpeningSlot, OpenState } from './openingHours.ts'
export { said, saidRich } from './said.ts'
export type { Reading } from './said.ts'
export { plainText, RICH_TEXT_MAX, richText, textFromPlain, textMarkup } from './richText.ts'
export type { Block, RichText, Run } from './richText.ts'
