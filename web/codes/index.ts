export { CodeInspector } from './CodeInspector.tsx'
export { FinalAddress } from './FinalAddress.tsx'
export { NewPiece } from './NewPiece.tsx'
