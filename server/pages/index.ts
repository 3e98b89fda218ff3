export { pagesEndpoints } from './endpoints.ts'
export { pageShelf } from './shelf.ts'
export type { PageShelf, ShelvedPage } from './shelf.ts'
export { pageStylesEndpoints } from './styleEndpoints.ts'
