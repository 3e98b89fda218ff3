export {
  CHANGES_MAX, code, CODE_SORTS, codeChange, codeFilter, codesApi, codeSet, GROUPS, level, newCode, pieceFields, SERIES_MAX, seriesNumbers, seriesPiece, SIZE_MM, symbolFileName, USUAL_PIECE, wholeFaults, wholePiece,
} from './contract.ts'
export type { Code, CodeCellChange, CodeChange, CodeFilter, CodeGroup, CodeSet, Group, NewCode } from './contract.ts'
export { seriesOf } from './series.ts'
export {
  canonicalSlug, chosenSlug, isSlug, printedLink, RESERVED_SLUGS, shortLink, SLUG_LENGTH, SLUG_LENGTHS, SLUG_MAX, SLUG_SIGNS, slugOf, slugsLike,
} from './slug.ts'
