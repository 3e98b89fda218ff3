export { PagesScreen } from './PagesScreen.tsx'
export { usePages } from './usePages.ts'
