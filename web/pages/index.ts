export { FileDestination } from './FileDestination.tsx'
export { PageStylesPart } from './PageStylesPart.tsx'
export { PagesScreen } from './PagesScreen.tsx'
export { usePages } from './usePages.ts'
