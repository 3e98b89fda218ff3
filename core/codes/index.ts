export { code, CODE_SORTS, codeChange, codesApi, level, newCode, SIZE_MM, symbolFileName } from './contract.ts'
export type { Code, CodeChange, NewCode } from './contract.ts'
export {
  canonicalSlug, chosenSlug, isSlug, printedLink, RESERVED_SLUGS, shortLink, SLUG_LENGTH, SLUG_MAX, SLUG_SIGNS, slugOf,
} from './slug.ts'
