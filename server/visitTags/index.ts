export { visitTagsEndpoints } from './endpoints.ts'
export { GIVEN_UP_MS, pauseAfter, startHitSender } from './sender.ts'
export type { HitSender } from './sender.ts'
export { tagsOf, VISIT_TAGS } from './section.ts'
