export { visitTagsEndpoints } from './endpoints.ts'
export { hitDelivery } from './delivery.ts'
export { tagsOf, VISIT_TAGS } from './section.ts'
