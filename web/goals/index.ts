export { GoalsScreen } from './GoalsScreen.tsx'
export { Snippet } from './Snippets.tsx'
