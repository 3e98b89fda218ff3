export type { TagQuestion } from './queries.ts'
export { taggingEndpoints } from './endpoints.ts'
export { taggedPiece, tagging } from './tagging.ts'
export type { Tagging } from './tagging.ts'
