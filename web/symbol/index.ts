export { PrintScreen } from './PrintScreen.tsx'
export { SymbolPicture } from './SymbolPicture.tsx'
