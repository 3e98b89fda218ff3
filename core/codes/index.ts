export { code, level } from './code.ts'
export type { Code } from './code.ts'
export {
  codeChange,
  codeSet,
  newCode,
  pieceFields,
  seriesPiece,
  SIZE_MM,
  DEFAULT_PIECE,
  wholeFaults,
  wholePiece,
} from './piece.ts'
export type { CodeChange, CodeSet, NewCode } from './piece.ts'
export { CHANGES_MAX, CODE_SORTS, codeFilter, GROUPS, SERIES_MAX, seriesNumbers } from './lists.ts'
export type { CodeCellChange, CodeFilter, CodeGroup, Group } from './lists.ts'
export { codesApi, symbolFileName } from './contract.ts'
export { contentOf } from './content.ts'
export { seriesOf } from './series.ts'
export {
  canonicalSlug,
  chosenSlug,
  isSlug,
  printedLink,
  RESERVED_SLUGS,
  shortLink,
  SLUG_LENGTH,
  SLUG_LENGTHS,
  SLUG_MAX,
  SLUG_SIGNS,
  slugIn,
  slugOf,
  slugOfPath,
  slugsLike,
} from './slug.ts'
